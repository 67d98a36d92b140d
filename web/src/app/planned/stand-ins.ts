import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { CHECKS, TIE_EVERY, learnStandIn, mustTie, parseQuantity, prettyUnit } from '@isometra/core';
import type { RoundHead } from '@isometra/contract';
import type { StandInLog } from '@isometra/work';
import { Settings } from '../data/settings';
import { SurveyChanges } from '../survey/survey-changes';
import { MachineStore } from '../machine/machine-store';
import { bothUnits, placedWords } from '../ui/say';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';

/** Cheap readings that stand for a full check between scraping passes. */
const titleOf = ({ check, quantity }: StandInLog): string => {
  const known = CHECKS.get(check);
  return `${known?.title ?? check}: ${known?.quantities[quantity]?.label ?? quantity}`;
};

/** Why the full check has to be read. @param ties how often both were read beside each other. */
const mustWords = (ties: number): string =>
  ties < 2
    ? 'Read it beside the full check twice before you rely on it.'
    : 'Three passes since it was tied: take the full check again and tie it.';

@Component({
  selector: 'iso-stand-ins',
  imports: [Button, Field, Notice, Pick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Quick checks between passes</h2>
    <p>
      A height over the bed at a corner can stand in for a full check between passes, so that nothing has to be put back together. Read it
      beside the full check twice. After that it gives the result by itself; repeat the full check every third pass.
    </p>
    @for (log of logs(); track log.id) {
      <section [attr.aria-label]="log.title">
        <h3>{{ log.title }}</h3>
        <p class="soft">{{ log.where }}. {{ log.ties }} {{ log.ties === 1 ? 'tie' : 'ties' }}, {{ log.since }} passes since.</p>
        @if (log.estimate) {
          <p>
            By the last reading: <b class="figures estimate">{{ log.estimate }}</b> <span class="soft">{{ log.trust }}</span>
          </p>
        }
        @if (log.must) {
          <p class="fault">{{ log.must }}</p>
        }
        <div class="row">
          <iso-field
            above
            label="Reads now"
            [name]="'Reads now, ' + log.title"
            [example]="example()"
            [value]="typed()[log.id] ?? ''"
            (typed)="type(log.id, $event)"
          />
          <button pButton type="button" (click)="take(log.id, false)">After a pass</button>
          @if (log.full) {
            <button pButton type="button" (click)="take(log.id, true)">Tie it to {{ log.full }}</button>
          }
          <button pButton type="button" class="plain" [attr.aria-label]="'Remove ' + log.title" (click)="takeOut(log.id)">remove</button>
        </div>
      </section>
    }
    <iso-notice [text]="fault()" />
    <form class="row" (submit)="add($event)">
      <label
        ><span class="label">Stands for</span>
        <iso-pick label="Stands for" placeholder="which check?" [options]="choices()" [value]="chosen()" (chosen)="chosen.set($event)"
      /></label>
      <iso-field
        above
        wide
        label="Where it is read"
        [most]="200"
        example="height over the bed, rear right corner"
        [value]="where()"
        (typed)="where.set($event)"
      />
      <button pButton type="submit">Add a quick check</button>
    </form>
  `,
  styleUrl: './parts.css',
})
export class StandIns {
  private readonly store = inject(MachineStore);
  private readonly changes = inject(SurveyChanges);
  private readonly settings = inject(Settings);
  protected readonly chosen = signal<string | null>(null);
  protected readonly where = signal('');
  protected readonly typed = signal<Readonly<Record<string, string | undefined>>>({});
  protected readonly fault = signal('');
  private readonly unit = computed(() => (this.settings.system() === 'mm' ? 'mm' : 'thou'));
  protected readonly example = computed(() => (this.settings.system() === 'mm' ? '0.120 mm' : '4.7 thou'));
  private readonly known = computed(() => this.store.survey()?.standIns ?? []);

  /** Quantities of the ladder that are put right by scraping or on faces. */
  protected readonly choices = computed(() =>
    this.store.rungs().flatMap(({ check }) =>
      Object.entries(check.corrections)
        .filter(([, { plus, minus }]) => [...plus, ...minus].some((kind) => kind === 'scrape' || kind === 'supports'))
        .map(([quantity]) => ({ value: `${check.id}/${quantity}`, label: `${check.title}: ${check.quantities[quantity].label}` })),
    ),
  );

  private round(check: string): RoundHead | undefined {
    return this.store.rungs().find((rung) => rung.check.id === check)?.round;
  }

  private value(check: string, quantity: string): number | undefined {
    return this.round(check)?.finding?.quantities[quantity]?.value;
  }

  protected readonly logs = computed(() => this.known().map((log) => this.told(log)));

  private told(log: StandInLog) {
    const info = CHECKS.get(log.check)?.quantities[log.quantity];
    const shown = this.settings.shown();
    const say = (value: number) => placedWords(value, info, shown, 1);
    const readings = log.entries.flatMap((entry) => {
      const parsed = parseQuantity(entry.reading, 'deviation');
      return parsed.ok ? [{ reading: parsed.value, value: entry.value }] : [];
    });
    const ties = readings.flatMap(({ reading, value }) => (value === null ? [] : [{ reading, value }]));
    const lastTie = log.entries.map((entry) => entry.value !== null).lastIndexOf(true);
    const since = lastTie < 0 ? 0 : log.entries.length - 1 - lastTie;
    const learned = learnStandIn(ties);
    const last = readings.at(-1);
    const full = this.value(log.check, log.quantity);
    const must = mustTie(ties.length, since);
    const doubt = learned && bothUnits(Math.max(learned.scatter, 1), info?.dimension ?? 'deviation', shown, 1).large;
    return {
      id: log.id,
      title: titleOf(log),
      where: log.where,
      ties: ties.length,
      since,
      estimate: learned && last && !(must && since >= TIE_EVERY) ? say(learned.estimate(last.reading)) : '',
      trust: doubt === undefined ? '' : `± ${doubt}, as its ties fit`,
      must: must ? mustWords(ties.length) : '',
      full: full === undefined ? '' : `the full check (${say(full)})`,
    };
  }

  protected type(id: string, text: string): void {
    this.typed.update((typed) => ({ ...typed, [id]: text }));
  }

  protected take(id: string, tie: boolean): void {
    const log = this.known().find((entry) => entry.id === id);
    const parsed = parseQuantity((this.typed()[id] ?? '').trim(), 'deviation', this.unit());
    if (!log) return;
    if (!parsed.ok) {
      this.fault.set(`Reads now ${parsed.message}. Example: ${this.example()}`);
      return;
    }
    const full = tie ? this.round(log.check) : undefined;
    const value = full?.finding?.quantities[log.quantity]?.value ?? null;
    const content = {
      standIn: id,
      reading: `${parsed.value} ${prettyUnit('um')}`,
      roundId: value === null ? null : (full?.id ?? null),
      value,
    };
    this.changes.note({ kind: 'tie', content }, tie ? 'Tied to the full check.' : 'Recorded.');
    this.fault.set('');
    this.type(id, '');
  }

  protected takeOut(id: string): void {
    this.changes.note({ kind: 'withdrawn', content: {} }, 'Removed.', id);
  }

  protected add(event: Event): void {
    event.preventDefault();
    const [check, quantity] = (this.chosen() ?? '').split('/');
    const where = this.where().trim();
    if (!quantity) return this.fault.set('Say which check it stands in for. Example: Spindle axis');
    if (!where) return this.fault.set('Say where it is read. Example: height over the bed, rear right corner');
    this.changes.note({ kind: 'stand-in', content: { check, quantity, where } }, 'Added. Read it beside the full check twice.');
    this.fault.set('');
    this.chosen.set(null);
    this.where.set('');
  }
}
