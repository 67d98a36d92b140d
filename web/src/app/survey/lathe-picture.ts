import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { KnownLathe } from '@isometra/work';
import { FRAME, pictureOf, type Picture } from './picture';

/** Limits of a survey as ghost lines, in drawing units like the picture: where each known thing may stand at the most. */
export interface Ghosts {
  readonly plan: { readonly tail: readonly number[]; readonly axisEnd: readonly number[] };
  readonly side: { readonly tail: readonly number[]; readonly axisEnd: readonly number[] };
  /** The sections of a bed that is twisted as far as it may be, one way and the other. */
  readonly sections: readonly Picture['sections'][];
}

const NONE: Ghosts = { plan: { tail: [], axisEnd: [] }, side: { tail: [], axisEnd: [] }, sections: [] };

/** A lathe in plan and side view and across its bed, bent by what is known of it; ghost lines are the limits. */
@Component({
  selector: 'iso-lathe-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './lathe-picture.html',
  styleUrl: './picture.css',
})
export class LathePicture {
  readonly known = input.required<KnownLathe>();
  readonly factor = input.required<number>();
  /** Where things may stand by the survey's limits. */
  readonly ghosts = input(NONE, { transform: (ghosts: Ghosts | undefined) => ghosts ?? NONE });

  protected readonly frame = FRAME;
  protected readonly picture = computed(() => pictureOf(this.known(), this.factor()));
}
