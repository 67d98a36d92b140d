import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Checkbox } from 'primeng/checkbox';

let ticks = 0;

/** Something that is so or not, with its words beside it. */
@Component({
  selector: 'iso-tick',
  imports: [FormsModule, Checkbox],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-checkbox
      [inputId]="id"
      [binary]="true"
      [ngModel]="on()"
      [ngModelOptions]="{ standalone: true }"
      [disabled]="disabled()"
      (ngModelChange)="changed.emit($event)"
    />
    <label [for]="id"><ng-content /></label>
  `,
  styles: `
    :host {
      display: flex;
      gap: 10px;
      align-items: baseline;
    }
    p-checkbox {
      flex: none;
      transform: translateY(4px);
    }
  `,
})
export class Tick {
  readonly on = input(false);
  readonly disabled = input(false);
  readonly changed = output<boolean>();
  protected readonly id = `tick-${++ticks}`;
}
