import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { ProgressBar } from 'primeng/progressbar';

/** How far something long has come: 0 to 100. */
@Component({
  selector: 'iso-progress',
  imports: [ProgressBar],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<p-progressbar [value]="percent()" [attr.aria-label]="label()" />`,
  styles: `
    :host {
      display: block;
    }
  `,
})
export class Progress {
  readonly percent = input.required<number>();
  readonly label = input.required<string>();
}
