import { ChangeDetectionStrategy, Component, input, model } from '@angular/core';
import type { HighEnd } from '@isometra/work';
import { Choices, type Choice } from '../ui/choices';
import { Figure } from '../ui/figure';

/** How much higher a face is, and at which of its ends: nothing is taken for granted. */
@Component({
  selector: 'iso-slope-field',
  imports: [Choices, Figure],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <iso-figure
      [label]="label()"
      [name]="name()"
      of="deviation"
      [value]="text()"
      [size]="8"
      [example]="example()"
      (typed)="text.set($event)"
    />
    <span>at</span>
    <iso-choices [label]="which()" [options]="ends()" [value]="end()" (chosen)="end.set($any($event))" />
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 12px;
      align-items: baseline;
    }
  `,
})
export class SlopeField {
  readonly label = input.required<string>();
  readonly name = input.required<string>();
  /** What the choice of an end is called. */
  readonly which = input.required<string>();
  readonly ends = input.required<readonly Choice<HighEnd>[]>();
  readonly example = input('nothing');
  readonly text = model.required<string>();
  readonly end = model.required<HighEnd | null>();
}
