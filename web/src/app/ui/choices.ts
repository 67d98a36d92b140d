import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RadioButton } from 'primeng/radiobutton';

/** One of a few. */
export interface Choice<Value = unknown> {
  readonly value: Value;
  readonly label: string;
}

let groups = 0;

/** A few choices, all in sight, one of them taken. Arrow keys go from one to the next. */
@Component({
  selector: 'iso-choices',
  imports: [FormsModule, RadioButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'radiogroup', '[attr.aria-label]': 'label()' },
  template: `
    @for (option of options(); track option.label) {
      <label [class.on]="option.value === value()">
        <p-radiobutton
          [name]="group"
          [value]="option.value"
          [ngModel]="value()"
          [ngModelOptions]="{ standalone: true }"
          (ngModelChange)="chosen.emit(option.value)"
        />
        {{ option.label }}
      </label>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
    }
    label {
      position: relative;
      display: flex;
      align-items: center;
      min-height: 40px;
      padding: 0 12px;
      margin: 0 -1px -1px 0;
      border: 1px solid var(--edge);
      background: var(--paper);
      font-size: 0.9375rem;
      cursor: pointer;
    }
    label.on {
      background: var(--ink);
      border-color: var(--ink);
      color: var(--paper);
    }
    label:focus-within {
      outline: 2px solid var(--blue);
      outline-offset: 1px;
      z-index: 1;
    }
    /* Paper has no dark ground: what is chosen stands out by its frame. */
    @media print {
      label {
        min-height: 28px;
        padding: 0 8px;
        color: var(--soft);
      }
      label.on {
        z-index: 1;
        outline: 2px solid var(--ink);
        background: none;
        color: var(--ink);
        font-weight: 700;
      }
    }
    p-radiobutton {
      position: absolute;
      inset: 0;
      opacity: 0;
    }
  `,
})
export class Choices<Value> {
  readonly options = input.required<readonly Choice<Value>[]>();
  readonly value = input<Value | null>(null);
  /** What is chosen, for those who cannot see it. */
  readonly label = input.required<string>();
  readonly chosen = output<Value>();
  protected readonly group = `choices-${++groups}`;
}
