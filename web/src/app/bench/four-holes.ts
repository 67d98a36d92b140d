import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { diagonalDifference, optionalMeasure } from '@isometra/core';
import * as z from 'zod';
import { draftForm } from './draft-form';
import { Settings } from '../data/settings';
import { bothUnits, isZero } from '../ui/say';
import { SchemaForm } from '../ui/schema-form';

const SCHEMA = z.strictObject({
  across: optionalMeasure('length', { label: 'Holes apart, left to right', above: 0, example: '300 mm' }),
  along: optionalMeasure('length', { label: 'Holes apart, front to rear', above: 0, example: '200 mm' }),
});

/** A plate of four holes of the user's own size, drilled by motions that are not square: by what its diagonals differ. */
@Component({
  selector: 'iso-four-holes',
  imports: [SchemaForm],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>Four holes drilled with it</h3>
    <iso-schema-form [schema]="form.schema" [value]="form.typed()" [faults]="form.faults()" (changed)="form.type($event)" />
    @if (told(); as words) {
      <p>{{ words }}</p>
    }
  `,
})
export class FourHoles {
  /** µm/m, + obtuse. */
  readonly squareness = input.required<number>();
  private readonly settings = inject(Settings);
  protected readonly form = draftForm(SCHEMA, () => 'four-holes');

  protected readonly told = computed(() => {
    const { across = 300, along = 200 } = this.form.values() ?? {};
    const [shown, squareness] = [this.settings.shown(), this.squareness()];
    const length = (mm: number) => bothUnits(mm, 'length', { ...shown, fineness: 'coarse' }).large;
    const size = bothUnits(Math.abs(diagonalDifference(squareness, across, along)), 'deviation', shown).large;
    const plate = `A plate of ${length(across)} by ${length(along)}`;
    if (isZero(size)) return `${plate} comes out true: its diagonals do not differ by anything that can be measured.`;
    // Obtuse at the front left: the far holes stand to the left, and the diagonal from the front right is the longer one.
    return `${plate}: its diagonals differ by ${size}, the one from the front ${squareness > 0 ? 'right to the rear left' : 'left to the rear right'} is the longer.`;
  });
}
