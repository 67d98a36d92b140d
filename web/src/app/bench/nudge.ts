import { ChangeDetectionStrategy, Component, model } from '@angular/core';
import * as z from 'zod';
import { Choices, type Choice } from '../ui/choices';

/** Which way the needle goes when the part is pushed toward the stylus; null when nobody tried. */
export const senseSchema = z.union([z.literal(1), z.literal(-1), z.null()]);
export type Sense = z.infer<typeof senseSchema>;

/** The nudge test: some lever indicators count backwards on one side. */
@Component({
  selector: 'iso-nudge',
  imports: [Choices],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <fieldset>
      <legend>Nudge test</legend>
      <p>Push the part gently toward the stylus. Which way does the needle go? Some lever indicators count backwards on one side.</p>
      <iso-choices label="Nudge test" [options]="answers" [value]="sense()" (chosen)="sense.set($event)" />
      <p>And gently away from it: does the needle go back the other way?</p>
      <iso-choices label="Both ways" [options]="ways" [value]="pegged()" (chosen)="pegged.set($event)" />
      @if (pegged()) {
        <p class="warning">
          The needle is at the end of its travel, and its reading means nothing. Set the dial so that the needle moves freely both ways.
        </p>
      }
      <ng-content />
      @if (sense() === null) {
        <p class="soft">Not tried: the result will assume the direction, and say so.</p>
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
    .warning {
      font-weight: 600;
      color: var(--red);
    }
    legend {
      padding: 0;
      font: 600 1rem/1.3 var(--narrow);
    }
  `,
})
export class Nudge {
  readonly sense = model.required<Sense>();
  /** Whether it stands at the end of its travel; null where nobody tried. Asked anew each time. */
  readonly pegged = model<boolean | null>(null);
  protected readonly ways: readonly Choice<boolean | null>[] = [
    { value: false, label: 'it goes back' },
    { value: true, label: 'it stays' },
    { value: null, label: 'nobody looked' },
  ];
  protected readonly answers: readonly Choice<Sense>[] = [
    { value: 1, label: 'it counts up' },
    { value: -1, label: 'it counts down' },
    { value: null, label: 'not tried' },
  ];
}
