import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { BoardPlate } from '@isometra/contract/board';
import { machineFamily } from '@isometra/contract/machine-kinds';
import type { KnownLathe, KnownMill, KnownTurning } from '@isometra/work';
import { fittingFactor } from '../survey/picture';
import { LathePicture } from '../survey/lathe-picture';
import { millFittingFactor } from '../survey/mill';
import { MillPictureDrawing } from '../survey/mill-picture';
import { turningFittingFactor, turningHas } from '../survey/turning';
import { TurningPicture } from '../survey/turning-picture';

/** A machine drawn small as it stands, bent by what is known of it. */
@Component({
  selector: 'iso-plate-picture',
  imports: [LathePicture, MillPictureDrawing, TurningPicture],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (mill()) {
      <iso-mill-picture class="bare" [kind]="kind()" [known]="machine()" [factor]="factor()" />
    } @else if (turning()) {
      <iso-turning-picture class="bare" [known]="centre()" [factor]="factor()" [has]="has()" [slant]="slant()" />
    } @else {
      <iso-lathe-picture class="bare" [known]="lathe()" [factor]="factor()" />
    }
    <span>errors drawn ×{{ factor() }}</span>
  `,
  styles: `
    :host {
      display: block;
    }

    span {
      display: block;
      color: var(--soft);
      font-size: 13px;
      text-align: right;
    }
  `,
})
export class PlatePicture {
  readonly kind = input.required<string>();
  readonly known = input.required<BoardPlate['known']>();

  protected readonly mill = computed(() => machineFamily(this.kind()) === 'mill');
  protected readonly lathe = computed((): KnownLathe => ({ ...this.known().facts, ways: this.known().ways }));
  protected readonly machine = computed((): KnownMill => this.known().facts);
  protected readonly turning = computed(() => machineFamily(this.kind()) === 'turning-centre');
  protected readonly centre = computed((): KnownTurning => ({ ...this.known().facts, pockets: this.known().pockets }));
  protected readonly slant = computed(() => this.known().facts['slant'] ?? null);
  protected readonly has = computed(() => turningHas(this.kind()));
  protected readonly factor = computed(() => {
    if (this.turning()) return turningFittingFactor(this.centre());
    return this.mill() ? millFittingFactor(this.machine()) : fittingFactor(this.lathe());
  });
}
