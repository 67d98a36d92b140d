import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { LimitSheet } from '@isometra/core';
import { ghostsOf } from './ghosts';
import { FRAME, pictureOf, type KnownLathe } from './picture';

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
  readonly judge = input<LimitSheet>();

  protected readonly frame = FRAME;
  protected readonly picture = computed(() => pictureOf(this.known(), this.factor()));
  /** Where things may stand by the survey's limits. */
  protected readonly ghosts = computed(() => ghostsOf(this.judge(), this.factor()));
}
