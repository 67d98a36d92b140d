import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { helpsFor, readInstrument, whatHelps, type Quantity, type QuantityInfo } from '@isometra/core';
import { Settings } from '../data/settings';
import { MachineStore } from '../machine/machine-store';
import { sizeOf } from '../ui/say';
import { suitable } from './begin-draft';
import { BenchStore } from './bench-store';

/** What would make this call surer, the most helpful first, with what each would leave. */
@Component({
  selector: 'iso-what-helps',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (helps()[0]; as first) {
      <p>
        <b>What would help most:</b> {{ first.text }}, for <span class="figures">± {{ first.doubt }}</span> instead of
        <span class="figures">± {{ now() }}</span
        >.
      </p>
      @for (help of helps().slice(1, 3); track help.text) {
        <p class="soft">Or {{ help.text }}: ± {{ help.doubt }}.</p>
      }
    } @else {
      <p class="soft">No instrument in the kit and no extra reading would make the ± much smaller.</p>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 6px 0;
      font-size: 0.9375rem;
    }
    .figures {
      font-size: 0.875rem;
    }
  `,
})
export class WhatHelps {
  readonly quantity = input.required<Quantity>();
  readonly info = input.required<QuantityInfo>();
  private readonly store = inject(BenchStore);
  private readonly machineStore = inject(MachineStore);
  private readonly settings = inject(Settings);

  private say(expanded: number): string {
    return sizeOf(expanded, this.info(), { system: this.settings.system(), fineness: 'fine' }, expanded).large;
  }

  protected readonly now = computed(() => this.say(this.quantity().expanded ?? 0));
  protected readonly helps = computed(() => {
    const [instrument, round] = [this.store.instrument(), this.store.round()];
    const { expanded, budget } = this.quantity();
    if (!instrument || !round || expanded === null) return [];
    const kit = this.machineStore
      .kit()
      .filter((item) => item.name !== round.instrumentName && suitable(item, this.store.valueKind()))
      .flatMap((item) => {
        const other = readInstrument(item.data).instrument;
        return other ? [{ name: item.name, instrument: other }] : [];
      });
    const done = this.store.slots().filter((slot) => slot.done && !slot.closing);
    const repeats = Math.max(1, Math.min(...done.map((slot) => slot.readings.length)));
    const check = this.store.check();
    const acts = check ? helpsFor(check, this.store.setup(), this.store.places()) : [];
    const facts = { acts, expanded, budget, instrument, repeats, kit };
    return whatHelps(facts).map((help) => ({ text: help.text, doubt: this.say(help.expanded) }));
  });
}
