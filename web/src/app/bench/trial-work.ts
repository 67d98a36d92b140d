import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { optionalMeasure, readingValue, trialCuts, type Material } from '@isometra/core';
import * as z from 'zod';
import { draftForm } from './draft-form';
import { Settings } from '../data/settings';
import { bothUnits } from '../ui/say';
import { SchemaForm } from '../ui/schema-form';
import { BenchStore } from './bench-store';

const SCHEMA = z.strictObject({
  finished: optionalMeasure('length', { label: 'Must come to', above: 0, example: '25 mm' }),
  warmer: optionalMeasure('warming', { label: 'Warmer now by', min: 0, max: 200, example: '10 C' }),
  cut: optionalMeasure('length', { label: 'A trial cut takes', above: 0, example: '0.1 mm', help: 'Off the diameter.' }),
});

/** Work that is cut for a trial: the size to stop at while it is warm, and what is left for further cuts. */
@Component({
  selector: 'iso-trial-work',
  imports: [SchemaForm],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details>
      <summary>What is left of the work</summary>
      <iso-schema-form [schema]="form.schema" [value]="form.typed()" [faults]="form.faults()" (changed)="form.type($event)" />
      @for (line of told(); track $index) {
        <p>{{ line }}</p>
      }
    </details>
  `,
  styles: `
    :host {
      display: block;
    }
    summary {
      cursor: pointer;
      color: var(--blue);
      font-weight: 600;
    }
    iso-schema-form {
      margin: 8px 0;
    }
  `,
})
export class TrialWork {
  private readonly store = inject(BenchStore);
  private readonly settings = inject(Settings);
  protected readonly form = draftForm(SCHEMA, () => `trial:${this.store.round()?.id ?? ''}`);

  /** Diameters of the pads as the last cut left them, mm. */
  private readonly pads = computed(() => {
    const base = this.store.check()?.spokenOver?.(this.store.setup());
    return this.store
      .standing()
      .filter(({ set }) => set === this.store.setUp())
      .flatMap(({ value, keys }) => {
        const read = readingValue(value, this.store.kindOf(keys), this.store.instrument(), base);
        return read.ok ? [read.value / 1000] : [];
      });
  });

  protected readonly told = computed((): string[] => {
    const { finished, warmer, cut } = this.form.values() ?? {};
    if (finished === undefined) return [];
    const shown = this.settings.shown();
    const size = (mm: number) => bothUnits(mm, 'length', { ...shown, fineness: 'fine' }).large;
    const { material } = (this.store.setup()['bar'] ?? {}) as { readonly material?: Material };
    const { stopAt, stock, cuts } = trialCuts({ pads: this.pads(), finished, warmer, cut, material });
    const stop = warmer ? [`Stop at ${size(stopAt)} while it is warm: it comes to ${size(finished)}.`] : [];
    if (this.pads().length === 0) return stop;
    const left =
      stock < 0
        ? `The smallest pad is ${size(-stock)} too small already.`
        : `${size(stock)} is left on the diameter of the smallest pad${cuts === undefined ? '' : cuts === 1 ? ': one more trial cut' : `: ${cuts} more trial cuts`}.`;
    return [...stop, left];
  });
}
