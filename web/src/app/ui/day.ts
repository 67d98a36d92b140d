import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { DatePicker } from 'primeng/datepicker';

/** A day, typed as 2027-03-31 or picked from a month. What is no day stays as it was typed. */
@Component({
  selector: 'iso-day',
  imports: [FormsModule, DatePicker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-datepicker
      dateFormat="yy-mm-dd"
      dataType="string"
      appendTo="body"
      [inputId]="inputId()"
      [placeholder]="placeholder()"
      [keepInvalid]="true"
      [showIcon]="true"
      [showOnFocus]="false"
      [firstDayOfWeek]="1"
      [iconAriaLabel]="'Pick ' + label() + ' from a month'"
      [ngModel]="value()"
      [ngModelOptions]="{ standalone: true }"
      (ngModelChange)="changed.emit($event ?? '')"
      [pt]="{
        pcInputText: {
          root: { 'aria-invalid': invalid() ? 'true' : null, 'aria-describedby': describedBy() },
        },
      }"
    />
  `,
})
export class Day {
  readonly label = input.required<string>();
  readonly inputId = input<string>();
  readonly value = input.required<string>();
  readonly placeholder = input('');
  readonly invalid = input(false);
  readonly describedBy = input<string | null>(null);
  readonly changed = output<string>();
}
