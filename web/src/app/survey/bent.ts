import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { machineFamily, type RoundHead } from '@isometra/contract';
import { knownFrom, knownMill, knownTurning, slantOf } from '@isometra/work';
import { MachineStore } from '../machine/machine-store';
import { LathePicture } from './lathe-picture';
import { millFittingFactor } from './mill';
import { MillPictureDrawing } from './mill-picture';
import { fittingFactor } from './picture';
import { turningFittingFactor, turningHas } from './turning';
import { TurningPicture } from './turning-picture';

/** How much errors may be exaggerated so that all of them are still on the picture of a machine of this kind. */
export function fittingFor(kind: string, rounds: readonly RoundHead[]): number {
  const family = machineFamily(kind);
  if (family === 'mill') return millFittingFactor(knownMill(rounds));
  return family === 'turning-centre' ? turningFittingFactor(knownTurning(rounds)) : fittingFactor(knownFrom(rounds));
}

/** The machine that is open, bent by what some rounds said of it. */
@Component({
  selector: 'iso-bent',
  imports: [LathePicture, MillPictureDrawing, TurningPicture],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @switch (family()) {
      @case ('mill') {
        <iso-mill-picture [kind]="store.kind()" [known]="mill()" [factor]="factor()" />
      }
      @case ('turning-centre') {
        <iso-turning-picture [known]="turning()" [factor]="factor()" [slant]="slant()" [has]="has()" />
      }
      @default {
        <iso-lathe-picture [known]="lathe()" [factor]="factor()" />
      }
    }
  `,
})
export class Bent {
  protected readonly store = inject(MachineStore);
  readonly rounds = input.required<readonly RoundHead[]>();
  readonly factor = input.required<number>();
  protected readonly family = computed(() => machineFamily(this.store.kind()));
  protected readonly lathe = computed(() => knownFrom(this.rounds()));
  protected readonly mill = computed(() => knownMill(this.rounds()));
  protected readonly turning = computed(() => knownTurning(this.rounds()));
  protected readonly slant = computed(() => slantOf(this.store.machine()?.card['slide']) ?? null);
  protected readonly has = computed(() => turningHas(this.store.kind()));
}
