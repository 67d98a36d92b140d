import { ChangeDetectionStrategy, Component, model } from '@angular/core';

/** Which way the needle goes when the part is pushed toward the stylus; null when nobody tried. */
export type Sense = 1 | -1 | null;

/** The nudge test: some lever indicators count backwards on one side. */
@Component({
  selector: 'iso-nudge',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <fieldset>
      <legend>Nudge test</legend>
      <p>Push the part gently toward the stylus. Which way does the needle go? Some lever indicators count backwards on one side.</p>
      <div class="segments">
        @for (answer of answers; track answer.label) {
          <label [class.on]="sense() === answer.sense"
            ><input type="radio" name="sense" [checked]="sense() === answer.sense" (change)="sense.set(answer.sense)" />
            {{ answer.label }}</label
          >
        }
      </div>
      <ng-content />
      @if (sense() === null) {
        <p class="soft">Not tried: the call will be given with the direction assumed, and says so.</p>
      }
    </fieldset>
  `,
  styles: `
    fieldset {
      margin: 0;
      padding: 0;
      border: 0;
      display: grid;
      gap: 8px;
    }
    legend {
      padding: 0;
      font: 600 16px/1.3 var(--narrow);
    }
  `,
})
export class Nudge {
  readonly sense = model.required<Sense>();
  protected readonly answers: readonly { readonly sense: Sense; readonly label: string }[] = [
    { sense: 1, label: 'it counts up' },
    { sense: -1, label: 'it counts down' },
    { sense: null, label: 'not tried' },
  ];
}
