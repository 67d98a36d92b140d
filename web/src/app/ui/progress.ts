import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { ProgressBar } from 'primeng/progressbar';

/** How far something long has come: 0 to 100. */
@Component({
  selector: 'iso-progress',
  imports: [ProgressBar],
  changeDetection: ChangeDetectionStrategy.OnPush,
  // The library’s own bar says more of itself than its role may: it is drawn, and told here.
  host: {
    role: 'progressbar',
    '[attr.aria-label]': 'label()',
    '[attr.aria-valuenow]': 'percent()',
    'aria-valuemin': '0',
    'aria-valuemax': '100',
  },
  template: `<p-progressbar aria-hidden="true" [value]="percent()" />`,
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
