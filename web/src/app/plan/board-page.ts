import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { catchError, from, of, switchMap } from 'rxjs';
import { daysBetween, jobOf, planToSchedule, type JobRef, type LaidOut, type PlanToSchedule } from '@isometra/work';
import type { ShopPlan } from '@isometra/contract';
import type { ApiFailure } from '../data/api';
import { useKeys } from '../data/keys';
import { Plans, WHOLE_SHOP } from '../data/plans';
import { dayWords, shortDayWords, today } from '../data/when';
import { Button } from '../ui/controls';
import { Choices } from '../ui/choices';
import { Notice } from '../ui/notice';
import { counted } from '../ui/say';
import { lanesOf, WAITS, type Told } from './board-lanes';
import { PlanDraws } from './plan-draws';
import { hoursWords } from './plan-words';
import { mondayOf } from './weeks';

/** Days of work that stand side by side. */
const SIDE_BY_SIDE = 6;
/** Pieces of one lane on one day that are named, where there are few lanes and where there are many; the rest is counted. */
const NAMED = { few: 10, many: 4 } as const;

interface Board {
  readonly shop: ShopPlan;
  readonly laidOut: readonly LaidOut[];
  readonly refs: readonly JobRef[];
  readonly problem: string;
}

const weekday = new Intl.DateTimeFormat('en-GB', { weekday: 'short', timeZone: 'UTC' });

/** Who does what, evening by evening: lanes by person or by machine, for reading at an arm's length. */
@Component({
  selector: 'iso-board-page',
  imports: [RouterLink, Button, Choices, Notice],
  providers: [PlanDraws],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './board-page.html',
  styleUrl: './board-page.css',
})
export class BoardPage {
  private readonly plans = inject(Plans);
  private readonly draws = inject(PlanDraws);
  protected readonly problem = signal('');
  protected readonly by = signal<'person' | 'machine'>('person');
  protected readonly ways = [
    { value: 'person' as const, label: 'By person' },
    { value: 'machine' as const, label: 'By machine' },
  ];
  /** The first day that is shown, counted among those on which anybody works. */
  private readonly first = signal(0);

  private readonly shop = toSignal(this.plans.of(WHOLE_SHOP));
  private readonly plansOf = computed(() => {
    const shop = this.shop();
    return shop?.machines.map((one) => planToSchedule(one, shop.today)) ?? [];
  });
  private readonly board = toSignal(
    toObservable(computed(() => ({ shop: this.shop(), plans: this.plansOf() }))).pipe(
      switchMap(({ shop, plans }) => (shop ? from(this.layOut(shop, plans)) : of(undefined))),
      catchError((error: Error) => of({ laidOut: [], refs: [], problem: error.message, shop: undefined })),
    ),
  );
  protected readonly empty = computed(() => {
    const shop = this.shop();
    return shop !== undefined && this.plansOf().every(({ items }) => items.length === 0);
  });
  protected readonly told = computed(() => this.board()?.problem ?? '');

  private readonly laid = computed(() => {
    const board = this.board();
    if (!board?.shop) return undefined;
    const byMachine = new Map(
      this.plansOf().map(({ machineId, number, items }) => [machineId, { number, items: new Map(items.map((item) => [item.key, item])) }]),
    );
    const told = ({ machineId, key }: JobRef): Told | undefined => {
      const machine = byMachine.get(machineId);
      const item = machine?.items.get(key);
      return machine && item && { number: machine.number, title: item.title, path: item.path };
    };
    const lanes = this.by() === 'person' ? board.shop.people.map(({ id }) => id) : this.busy().map(({ number }) => number);
    return lanesOf(board.laidOut, board.refs, { by: this.by(), told, lanes });
  });
  /** Machines that something is left to do on. */
  private readonly busy = computed(() => this.plansOf().filter(({ items }) => items.length > 0));

  protected readonly days = computed(() => {
    const all = this.laid()?.days ?? [];
    const shown = all.slice(this.first(), this.first() + SIDE_BY_SIDE);
    return shown.map((date, i) => ({
      date,
      name: `${weekday.format(new Date(`${date}T12:00:00Z`))} ${shortDayWords(date)}`,
      today: date === today(),
      // A week of its own begins here.
      week: i > 0 && daysBetween(mondayOf(shown[i - 1]), date) >= 7,
    }));
  });
  protected readonly hasMore = computed(() => (this.laid()?.days.length ?? 0) > this.first() + SIDE_BY_SIDE);
  protected readonly hasLess = computed(() => this.first() > 0);
  protected readonly lanes = computed(() => {
    const [laid, dates] = [this.laid(), new Set(this.days().map(({ date }) => date))];
    let next = this.first() === 0;
    const named = (laid?.lanes.length ?? 0) > 2 ? NAMED.many : NAMED.few;
    return (laid?.lanes ?? []).map(({ id, cells }) => ({
      ...this.headOf(id),
      cells: cells
        .filter(({ date }) => dates.has(date))
        .map((cell, i, all) => {
          // A wait is named where it comes into sight, and is a band from there on.
          const before = new Set(all[i - 1]?.waits.map(({ machineId, key }) => machineId + key));
          const waits = cell.waits.map((wait) => ({
            ...wait,
            words: before.has(wait.machineId + wait.key) ? '' : `${wait.title}, until ${dayWords(wait.until)}`,
          }));
          const pieces = cell.pieces.slice(0, named).map((piece) => {
            // Yellow is the one next thing.
            const first = next;
            next = false;
            return { ...piece, next: first };
          });
          const more = cell.pieces.length - pieces.length;
          return { ...cell, pieces, waits, more: more > 0 ? `and ${more} more` : '' };
        }),
    }));
  });

  /** The head of a lane: who, with their hours; or which machine, with when it is done and how far that has slipped. */
  private headOf(id: string) {
    if (this.by() === 'person') {
      const person = this.shop()?.people.find((one) => one.id === id);
      const words = id === WAITS ? 'by the clock' : person ? hoursWords(person) : '';
      return { id, link: null, words, slip: '' };
    }
    const plan = this.plansOf().find(({ number }) => number === id);
    const done = plan && this.doneOn(plan);
    return {
      id,
      link: plan ? ['/machines', plan.machineId, 'plan'] : null,
      words: done ? `done about ${dayWords(done)}` : '',
      slip: plan && done ? this.slipOf(plan, done) : '',
    };
  }

  private doneOn({ machineId }: PlanToSchedule): string | undefined {
    const board = this.board();
    const ends = board?.laidOut.filter(({ id }) => board.refs[Number(id)]?.machineId === machineId).map(({ end }) => end) ?? [];
    return ends.sort().at(-1);
  }

  /** How much later than the date that was named last it is now. */
  private slipOf({ machineId }: PlanToSchedule, done: string): string {
    const named = this.shop()?.named.find((one) => one.machineId === machineId && one.came === null && one.at < today());
    const days = named ? daysBetween(named.p90, done) : 0;
    return named && days > 0 ? `${counted(days, 'day')} later than was thought on ${dayWords(named.at)}` : '';
  }

  constructor() {
    this.plans.load(WHOLE_SHOP).subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
    useKeys([
      {
        shown: '← →',
        does: 'other days',
        keys: ['ArrowLeft', 'ArrowRight'],
        repeats: true,
        run: (event) => this.go(event.key === 'ArrowLeft' ? -1 : 1),
      },
      {
        shown: 'W',
        does: 'by person or by machine',
        keys: ['w'],
        run: () => this.by.update((by) => (by === 'person' ? 'machine' : 'person')),
      },
    ]);
  }

  protected go(by: -1 | 1): boolean | void {
    if (by > 0 ? !this.hasMore() : !this.hasLess()) return false;
    this.first.update((first) => Math.max(0, first + by * SIDE_BY_SIDE));
  }

  private async layOut(shop: ShopPlan, plans: readonly PlanToSchedule[]): Promise<Board> {
    const made = jobOf(plans, { start: shop.today, timeZone: shop.timeZone, people: shop.people });
    if (!made) return { shop, laidOut: [], refs: [], problem: '' };
    const answer = await this.draws.layOut(made.job);
    return 'problem' in answer
      ? { shop, laidOut: [], refs: [], problem: answer.problem }
      : { shop, laidOut: answer.value, refs: made.refs, problem: '' };
  }
}
