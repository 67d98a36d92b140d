import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Select } from 'primeng/select';
import type { Choice } from './choices';

/** One of many, out of a list that opens. */
@Component({
  selector: 'iso-pick',
  imports: [FormsModule, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-select
      [options]="shown()"
      optionLabel="label"
      optionValue="value"
      [ngModel]="value()"
      [ngModelOptions]="{ standalone: true }"
      (ngModelChange)="chosen.emit($event)"
      [ariaLabel]="label()"
      [placeholder]="placeholder()"
      [inputId]="inputId()"
      [autoOptionFocus]="true"
      appendTo="body"
    />
  `,
  styles: `
    :host {
      display: inline-block;
      min-width: 0;
      max-width: 100%;
    }
    p-select {
      max-width: 100%;
    }
  `,
})
export class Pick<Value> {
  readonly options = input.required<readonly Choice<Value>[]>();
  readonly value = input<Value | null>(null);
  readonly label = input.required<string>();
  readonly placeholder = input('');
  readonly inputId = input<string | undefined>(undefined);
  readonly chosen = output<Value>();
  protected readonly shown = computed(() => [...this.options()]);
}
