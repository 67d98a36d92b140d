import { injectWindowVirtualizer } from '@tanstack/angular-virtual';
import {
  afterEveryRender,
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { CHECKS, DIMENSIONS, prettyUnit, shownIn, type CheckDefinition, type Dimension, toYou } from '@isometra/core';
import type { Machine, MoveWrite, RoundHead } from '@isometra/contract';
import { counts, curvesAlong, homingOf, registerLog, registerValue, drawnWords, type RegisterEntry } from '@isometra/work';
import { DrawingOut } from '../drawings/drawing-out';
import { meaningWords } from '../register/register-words';
import { bedWords } from '../machine/bed-words';
import { driftWords } from './drift-words';
import type { ApiFailure } from '../data/api';
import { Machines } from '../data/machines';
import { Settings } from '../data/settings';
import { AtHand } from '../shell/at-hand';
import { MachineStore } from '../machine/machine-store';
import { Choices } from '../ui/choices';
import { Button } from '../ui/controls';
import { Glyph } from '../ui/glyph';
import { Notice } from '../ui/notice';
import { resultTold } from '../ui/result-told';
import { counted, sizeOf } from '../ui/say';
import { moveRecord, moveTold } from '@isometra/work';
import { RoundChart, type ChartSeries } from '../charts/round-chart';
import { TrendChart, type TrendSeries } from '../charts/trend-chart';
import { dateWords } from '../data/when';

/** Rounds that are drawn all at once, and points of a chart. */
const FEW = 120;
const MOST_DRAWN = 300;

/** The rounds of one check: errors inside their limits, and what became of every move. */
@Component({
  selector: 'iso-history',
  imports: [DrawingOut, RouterLink, Button, Choices, Glyph, Notice, RoundChart, TrendChart],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './history.html',
  styleUrl: './history.css',
})
export class History {
  readonly checkId = input.required<string>();
  /** `date`: charts over the years instead of round by round. */
  readonly by = input<string>();
  private readonly router = inject(Router);
  private readonly machines = inject(Machines);
  protected readonly problem = signal('');
  protected readonly ways = [
    { value: 'round', label: 'Round by round' },
    { value: 'date', label: 'Over the years' },
  ];
  protected readonly store = inject(MachineStore);
  private readonly settings = inject(Settings);

  constructor() {
    inject(AtHand).doing.set('Rounds so far');
    this.store.refresh();
    afterEveryRender(() => {
      if (!this.many()) return;
      this.measureTop();
      // Rows are as high as their words: each is measured once it is there.
      for (const row of this.list()?.nativeElement.children ?? []) this.inSight.measureElement(row as HTMLElement);
    });
  }

  protected readonly check = computed(() => CHECKS.get(this.checkId()) as CheckDefinition);
  protected readonly rounds = computed(() => this.store.of(this.checkId()));
  private readonly shown = this.settings.shown;
  private readonly judged = computed(() => this.store.judged(this.checkId()));
  /** What was entered into registers, as the rounds after it judge it: another arithmetic than a screw's. */
  private readonly registers = computed(() => (this.check().carried ? registerLog(this.store.all()) : []));

  /** Of several like things (stations, flats) those that were read, by the name each has; a chart is of one. */
  protected readonly things = computed(() => [...new Set(this.rounds().map((round) => drawnWords(round)))]);
  protected readonly options = computed(() => this.things().map((name) => ({ value: name, label: name || 'not named' })));
  protected readonly thing = linkedSignal(() => {
    const last = this.rounds().at(-1);
    return last ? drawnWords(last) : '';
  });
  private readonly ofThing = computed(() => this.rounds().filter((round) => drawnWords(round) === this.thing()));
  /** The last rounds alone: of thousands a chart shows nothing but a band. */
  private readonly charted = computed(() => this.ofThing().slice(-MOST_DRAWN));
  protected readonly leftUndrawn = computed(() => {
    const all = this.ofThing().length;
    return all > MOST_DRAWN ? `The last ${MOST_DRAWN} of ${all} rounds are drawn.` : '';
  });

  /** The rounds, the last one first. */
  protected readonly listed = computed(() => [...this.store.listedOf(this.checkId())].reverse());
  private readonly list = viewChild<ElementRef<HTMLElement>>('list');
  private readonly listTop = signal(0);
  /** Of very many rounds those in sight are on the page, and no others. */
  protected readonly many = computed(() => this.listed().length > FEW);
  protected readonly inSight = injectWindowVirtualizer<HTMLElement>(() => ({
    count: this.many() ? this.listed().length : 0,
    estimateSize: () => 66,
    overscan: 10,
    useAnimationFrameWithResizeObserver: true,
    scrollMargin: this.listTop(),
    getItemKey: (index) => this.listed()[index]?.id ?? index,
  }));
  /** What is drawn: all of a few rounds; of many those in sight, each with where it stands. */
  protected readonly rows = computed(() => {
    const listed = this.listed();
    if (!this.many()) return listed.map((round, index) => ({ ...this.row(round), index, top: 0 }));
    return this.inSight.getVirtualItems().flatMap(({ index, start }) => {
      const round = listed[index];
      return round ? [{ ...this.row(round), index, top: start - this.listTop() }] : [];
    });
  });

  /** Where the list begins on the page: charts above it come late. */
  private measureTop(): void {
    const box = this.list()?.nativeElement.getBoundingClientRect();
    const top = box ? Math.round(box.top + globalThis.scrollY) : 0;
    if (box && Math.abs(top - this.listTop()) > 1) this.listTop.set(top);
  }

  private row(round: RoundHead) {
    const check = this.check();
    const quantities = Object.entries((counts(round) ? round.finding : null)?.quantities ?? {}).filter(
      ([, quantity]) => quantity.verdict !== null,
    );
    return {
      round,
      thing: this.things().length > 1 ? drawnWords(round) : '',
      when: dateWords(round.at),
      unread: round.unread && !round.struck && quantities.length ? `${counted(round.unread, 'place')} left` : '',
      survey: this.store.surveys().length > 1 ? (this.store.surveys().find((entry) => entry.id === round.surveyId)?.title ?? '') : '',
      calls: quantities.map(([name, quantity]) => ({
        label: check.quantities[name].label,
        ...resultTold(quantity, check.quantities[name], this.shown()),
      })),
      moves: round.moves.map((move) => {
        const judged = this.judged().find((entry) => entry.move.id === move.id);
        const info = check.quantities[move.quantity];
        const told = judged && moveTold(judged, info, this.shown());
        const size = sizeOf(move.amount, info, this.shown(), 1).large;
        const entered = this.registers().filter((entry) => entry.move.id === move.id);
        if (entered.length) return this.registerRow(move, entered);
        return {
          id: move.id,
          plan: `${move.doneAt ? 'Moved' : 'Planned'} ${size} ${toYou(move.direction)}`,
          unlike: judged?.unlike ?? [],
          // Only the last one still asks for something.
          text: move.doneAt
            ? judged && judged !== this.judged().at(-1)
              ? moveRecord(judged, info, this.shown())
              : (told?.text ?? 'No round after it yet.')
            : '',
          gain: judged && !judged.because ? judged.result.gain : null,
          bad: told?.bad ?? false,
        };
      }),
    };
  }

  /** What was entered on a change sheet, and what reading again said of it last. */
  private registerRow(move: MoveWrite, entries: readonly RegisterEntry[]) {
    const { use, recheck } = entries[entries.length - 1];
    const values = entries.flatMap((entry) => (entry.use.entered ? [registerValue(entry.use.entered.value, use)] : []));
    const text = recheck ? meaningWords(recheck, use, homingOf(this.store.machine()?.card)) : 'Not read again yet, with the axes homed.';
    return {
      ...{
        id: move.id,
        plan: `Entered into ${use.name}: ${values.join(', then ')}`,
        unlike: [],
        text: use.entered?.how === 'back' ? '' : text,
      },
      ...{ gain: null, bad: recheck !== undefined && recheck.meaning !== 'right' },
    };
  }

  /** What was learned of the screws of this check, each for its own quantity. */
  protected readonly gains = computed(() =>
    Object.entries(this.check().corrections).flatMap(([quantity, { plus, minus }]) =>
      [...new Set([...plus, ...minus])].flatMap((kind) => {
        const gain = this.store.gain({ check: this.checkId(), quantity, kind });
        return gain === null ? [] : [{ label: this.check().quantities[quantity].label, gain }];
      }),
    ),
  );

  /** The unit of a chart, and how much of the base unit it is. */
  private chartUnit(dimension: Dimension): { unit: string; factor: number } {
    const { unit } = shownIn(dimension, this.settings.system(), 'coarse');
    return { unit, factor: DIMENSIONS[dimension].factors[unit.toLowerCase()] };
  }

  /** The zone that the latest round was judged by. */
  private zone(quantity: string) {
    return this.charted()
      .map((round) => round.finding?.quantities[quantity]?.limit)
      .filter(Boolean)
      .at(-1);
  }

  /** How each quantity drifts. */
  private readonly told = computed(() =>
    Object.entries(this.check().quantities).flatMap(([name, info]) => {
      const drift = info.limit ? this.store.drift(this.checkId(), name, this.thing()) : undefined;
      return drift ? [{ name, info, drift }] : [];
    }),
  );
  /** The same in words. One round is no news: what it says stands in its row. */
  protected readonly drifts = computed(() =>
    this.told()
      .filter(({ drift }) => drift.rounds >= 2)
      .map(({ drift, info }) => driftWords(drift, info, this.shown(), (at) => dateWords(new Date(at).toISOString()))),
  );

  /** The same drawn over the years. */
  /** What the drawing of a quantity is called in a file. */
  protected titleOf(quantity: string): string {
    const { title } = this.check();
    return [this.store.machine()?.card.number, title, quantity === title ? '' : quantity].filter(Boolean).join(', ');
  }

  protected readonly trends = computed((): TrendSeries[] =>
    this.told().map(({ name, info, drift: { trend, points, moves } }) => {
      const { factor } = this.chartUnit(info.dimension);
      const telling = new Set(points.map(({ at }) => at));
      const all = this.charted().flatMap((round): TrendSeries['points'] => {
        const found = round.finding?.quantities[name];
        const at = Date.parse(round.at);
        return found ? [{ at, value: found.value / factor, doubt: (found.expanded ?? 0) / factor, told: telling.has(at) }] : [];
      });
      const line = trend.kind === 'line' ? trend : undefined;
      return {
        ...this.axis(name),
        points: all,
        moves: moves.map((at) => Date.parse(at)),
        ...(line && {
          line: { from: points[0].at, at: (time: number) => line.line(time) / factor, band: (time: number) => line.band(time) / factor },
        }),
        ...(line?.leaves && { leaves: line.leaves }),
      };
    }),
  );

  protected draw(by: string): void {
    void this.router.navigate([], { queryParams: { by: by === 'date' ? by : null }, queryParamsHandling: 'merge', replaceUrl: true });
  }

  /** After how many days this check is well read again, by the quantity that drifts out first; undefined where none does. */
  protected readonly proposed = computed(() => {
    const days = this.told().flatMap(({ drift: { trend } }) =>
      trend.kind === 'line' && trend.readAgainAfter !== null ? [trend.readAgainAfter] : [],
    );
    return days.length ? Math.min(...days) : undefined;
  });
  private readonly again = computed(() => this.store.machine()?.card.readAgain ?? []);
  private readonly ownAgain = computed(() => this.again().find(({ check }) => check === this.checkId()));
  /** The days that the machine card asks for. */
  protected readonly kept = computed(() => {
    const days = this.ownAgain()?.days;
    return days === undefined ? undefined : Number(days);
  });

  /** The machine card asks for this check every so many days. */
  protected readAgainEvery(days: number): void {
    const machine = this.store.machine();
    if (!machine) return;
    const others = this.again().filter(({ check }) => check !== this.checkId());
    // Hours of running that were asked for stay beside it.
    const readAgain = [...others, { ...this.ownAgain(), check: this.checkId(), days: String(days) }];
    this.machines.save({ ...machine, card: { ...machine.card, readAgain } as unknown as Machine['card'] }).subscribe({
      next: () => this.problem.set(''),
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }

  private readonly curves = computed(() => curvesAlong(this.store.current(), this.checkId()));
  /** What the places along the bed say together. */
  protected readonly alongBed = computed(() =>
    this.curves().map((entry) => bedWords(entry, this.check().quantities[entry.quantity], this.shown())),
  );
  protected readonly bedSeries = computed((): ChartSeries[] => {
    const length = this.chartUnit('length');
    return this.curves().map(({ quantity, curve }) => ({
      ...this.axis(quantity),
      along: `along the bed, ${length.unit}`,
      points: curve.places.map(({ at, value, expanded }) => {
        const { factor } = this.chartUnit(this.check().quantities[quantity].dimension);
        return { label: (at / length.factor).toFixed(0), at: at / length.factor, value: value / factor, doubt: (expanded ?? 0) / factor };
      }),
    }));
  });

  /** Name, unit, direction words and zone of a quantity's chart. */
  private axis(name: string) {
    const info = this.check().quantities[name];
    const { unit, factor } = this.chartUnit(info.dimension);
    const zone = this.zone(name) ?? [null, null];
    return {
      name: info.label,
      unit: prettyUnit(unit),
      plus: toYou(info.words?.plus ?? ''),
      minus: toYou(info.words?.minus ?? ''),
      limit: zone.map((bound) => (bound === null ? null : bound / factor)) as [number | null, number | null],
    };
  }

  protected readonly series = computed((): ChartSeries[] =>
    Object.entries(this.check().quantities)
      .filter(([, info]) => info.limit)
      .map(([name, info]) => {
        const { factor } = this.chartUnit(info.dimension);
        return {
          ...this.axis(name),
          points: this.charted().flatMap((round) => {
            const quantity = round.finding?.quantities[name];
            return quantity
              ? [{ label: String(round.number), value: quantity.value / factor, doubt: (quantity.expanded ?? 0) / factor }]
              : [];
          }),
        };
      })
      .filter((series) => series.points.length > 0),
  );
}
