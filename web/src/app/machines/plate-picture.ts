import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { BoardPlate } from '@isometra/contract/board';
import { machineFamily } from '@isometra/contract/machine-kinds';
import { fittingOf, type Bending } from '@isometra/work/pictures';
import { Bent } from '../survey/bent';

/** A machine drawn small as it stands, bent by what is known of it. */
@Component({
  selector: 'iso-plate-picture',
  imports: [Bent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <iso-bent [kind]="kind()" [bending]="bending()" [factor]="factor()" [slant]="slant()" [bare]="true" />
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

  protected readonly bending = computed((): Bending => {
    const [{ facts, ways, pockets }, family] = [this.known(), machineFamily(this.kind())];
    if (family === 'mill') return { family, known: facts };
    return family === 'turning-centre' ? { family, known: { ...facts, pockets } } : { family, known: { ...facts, ways } };
  });
  protected readonly slant = computed(() => this.known().facts['slant'] ?? null);
  protected readonly factor = computed(() => fittingOf(this.bending()));
}
