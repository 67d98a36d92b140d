import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { KnownLathe, KnownMill, KnownTurning } from '@isometra/work';
import { LathePicture, type Ghosts } from './lathe-picture';
import { millFittingFactor } from './mill';
import { MillPictureDrawing, type MillGhosts } from './mill-picture';
import { fittingFactor } from './picture';
import { turningFittingFactor, turningHas, type TurningGhosts } from './turning';
import { TurningPicture } from './turning-picture';

/** What is known of a machine of one family, and the limits that are drawn beside it. */
export type Bending =
  | { readonly family: 'lathe'; readonly known: KnownLathe; readonly ghosts?: Ghosts }
  | { readonly family: 'mill'; readonly known: KnownMill; readonly ghosts?: MillGhosts }
  | { readonly family: 'turning-centre'; readonly known: KnownTurning; readonly ghosts?: TurningGhosts };

/** How much errors may be exaggerated so that all of them are still on the picture. */
export function fittingOf(bending: Bending): number {
  if (bending.family === 'mill') return millFittingFactor(bending.known);
  return bending.family === 'turning-centre' ? turningFittingFactor(bending.known) : fittingFactor(bending.known);
}

/** A machine of any family, bent by what is known of it. */
@Component({
  selector: 'iso-bent',
  imports: [LathePicture, MillPictureDrawing, TurningPicture],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let now = bending();
    @if (now.family === 'mill') {
      <iso-mill-picture [class.bare]="bare()" [kind]="kind()" [known]="now.known" [factor]="factor()" [ghosts]="now.ghosts" />
    } @else if (now.family === 'turning-centre') {
      <iso-turning-picture
        [class.bare]="bare()"
        [known]="now.known"
        [factor]="factor()"
        [ghosts]="now.ghosts"
        [slant]="slant()"
        [has]="has()"
      />
    } @else {
      <iso-lathe-picture [class.bare]="bare()" [known]="now.known" [factor]="factor()" [ghosts]="now.ghosts" />
    }
  `,
})
export class Bent {
  readonly kind = input.required<string>();
  readonly bending = input.required<Bending>();
  readonly factor = input.required<number>();
  /** The slant of a turning centre, + its rear the higher; null where its card does not say. */
  readonly slant = input<number | null>(null);
  /** Without words on it. */
  readonly bare = input(false);
  protected readonly has = computed(() => turningHas(this.kind()));
}
