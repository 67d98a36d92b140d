import { Injectable, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { catchError, combineLatest, debounceTime, distinctUntilChanged, from, map, merge, of, switchMap, type Observable } from 'rxjs';
import { dequal } from 'dequal';
import type { OwnItem, PlanItem, PlanSettled, Schedule, ShopPlan, StoredPlan } from '@isometra/contract';
import { arranged, helps, jobOf, shifted, type HelpCode, type JobRef, type PlanToSchedule } from '@isometra/work';
import type { ApiFailure } from '../data/api';
import { nowText } from '../data/clock';
import { newId } from '../data/id';
import { Plans, WHOLE_SHOP } from '../data/plans';
import { Settings } from '../data/settings';
import { PlanDraws } from './plan-draws';
import { daysFrom } from './plan-words';
import type { PlanEdited } from './plan-edit';
import type { OwnTyped } from './own-item-form';

/** Draws of a plan on show; and of one that it is compared with. */
const DRAWS = 10_000;
/** With the other jobs there is several times as much to lay out. */
const SHARED_DRAWS = 2000;
const FEW_DRAWS = 200;
/** What is changed within this time is drawn once, ms. */
const TOGETHER = 150;

/** What was drawn of a plan. */
export interface Drawn {
  readonly schedule: Schedule | null;
  readonly problem: string;
  readonly refs: readonly JobRef[];
  /** What was planned as if somebody came to help. */
  readonly helped: readonly JobRef[];
}

/** What one thing would save, days. */
export interface Saved {
  readonly code: HelpCode;
  readonly days: number;
}

interface Sketch {
  readonly shop: ShopPlan;
  readonly items: readonly PlanItem[];
  /** Plans of other machines that share people and kit, those that go first standing before `at`. */
  readonly others: readonly PlanToSchedule[];
  readonly at: number;
}

/** The plan of one machine as it is settled and drawn: what a page of it works with. */
@Injectable()
export class PlanState {
  private readonly plans = inject(Plans);
  private readonly settings = inject(Settings);
  private readonly draws = inject(PlanDraws);
  private readonly machineId = signal('');
  /** Why the plan could not be fetched, or what was settled was not taken. */
  readonly problem = signal('');

  readonly shop = toSignal(toObservable(this.machineId).pipe(switchMap((id) => (id ? this.plans.of(id) : of(undefined)))));
  private readonly plan = computed(() => this.shop()?.machines[0]);
  readonly leftOff = computed(() => this.plan()?.leftOff ?? null);
  private readonly settled = computed((): StoredPlan | undefined => this.plan()?.settled, { equal: dequal });
  /** What is to be done, in order, as it is settled. */
  readonly items = computed(
    (): readonly PlanItem[] => {
      const [plan, settled] = [this.plan(), this.settled()];
      return plan && settled ? arranged(plan.items, settled) : [];
    },
    { equal: dequal },
  );
  /** What is not to be done, with the reason. */
  readonly leftOut = computed(() =>
    (this.settled()?.changes ?? []).flatMap((change) => {
      const item = change.left ? this.plan()?.items.find(({ key }) => key === change.key) : undefined;
      return item ? [{ item, why: `${change.by}: ${change.why}` }] : [];
    }),
  );

  /** Whether the other jobs of the shop take their share of people and kit. */
  readonly shared = signal(false);
  private readonly whole = toSignal(this.plans.of(WHOLE_SHOP));
  /** The plans of the other machines, in the order in which they are worked at; and how many go before this one. */
  private readonly beside = computed(() => {
    const all = this.shared() ? (this.whole()?.machines ?? []) : [];
    const others = all
      .filter(({ machineId }) => machineId !== this.machineId())
      .map(({ machineId, number, items, settled }) => ({ machineId, number, items: arranged(items, settled) }));
    return {
      others,
      at: Math.max(
        0,
        all.findIndex(({ machineId }) => machineId === this.machineId()),
      ),
    };
  });
  private readonly sketch = computed((): Sketch | null => {
    const [shop, items] = [this.shop(), this.items()];
    return shop && items.length ? { shop, items, ...this.beside() } : null;
  });
  private readonly drawn$: Observable<Drawn> = toObservable(this.sketch).pipe(
    distinctUntilChanged((one, other) =>
      dequal(one && { ...one, shop: people(one.shop) }, other && { ...other, shop: people(other.shop) }),
    ),
    debounceTime(TOGETHER),
    switchMap((sketch) => (sketch ? this.drawing(sketch) : of(NOTHING_DRAWN))),
  );
  readonly drawn = toSignal(this.drawn$, { initialValue: NOTHING_DRAWN });
  readonly schedule = computed(() => this.drawn().schedule);
  readonly progress = this.draws.progress;
  /** What would help, and by how many days; null while that is being worked out. */
  readonly saved = toSignal(
    combineLatest([toObservable(this.sketch), toObservable(this.schedule)]).pipe(
      switchMap(([sketch, schedule]) => (sketch && schedule ? merge(of(null), from(this.compare(sketch, schedule))) : of(null))),
    ),
    { initialValue: null as readonly Saved[] | null },
  );

  /** Put the plan of a machine on the desk. */
  load(machineId: string): void {
    this.machineId.set(machineId);
    this.problem.set('');
    this.plans.load(machineId).subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
  }

  private jobs({ shop, items, others, at }: Sketch) {
    const [machine] = shop.machines;
    const circumstances = { start: shop.today, timeZone: shop.timeZone, people: shop.people, widen: shop.widen };
    const own = { machineId: machine.machineId, number: machine.number, items };
    return { plans: [...others.slice(0, at), own, ...others.slice(at)], circumstances };
  }

  private drawing(sketch: Sketch): Observable<Drawn> {
    const { plans, circumstances } = this.jobs(sketch);
    const made = jobOf(plans, { ...circumstances, draws: sketch.others.length ? SHARED_DRAWS : DRAWS });
    if (!made) return of({ ...NOTHING_DRAWN, problem: 'Nobody has hours to work: give them on the page of the shop.' });
    const ends = made.refs.flatMap(({ machineId }, i) => (machineId === this.machineId() ? [String(i)] : []));
    return from(this.draws.draw(made.job, ends)).pipe(
      map((answer): Drawn => {
        const { refs, helped } = made;
        const titles = plans.flatMap((plan) => plan.items);
        if ('problem' in answer) return { schedule: null, problem: withTitles(answer.problem, titles), refs, helped };
        this.plans
          .name(this.machineId(), answer.value.finish)
          .pipe(catchError(() => of(undefined)))
          .subscribe();
        return { schedule: answer.value, problem: '', refs, helped };
      }),
      catchError((error: Error) => of({ ...NOTHING_DRAWN, problem: error.message })),
    );
  }

  /** The same job otherwise, drawn less often: what each would save. */
  private async compare(sketch: Sketch, schedule: Schedule): Promise<readonly Saved[]> {
    // What would help is told of this machine alone: with the others it would be the end of them all.
    if (sketch.others.length) return [];
    const { plans, circumstances } = this.jobs(sketch);
    const all = helps(plans, { ...circumstances, draws: FEW_DRAWS });
    const dates = await this.draws.finishes(all.map((help) => jobOf(help.plans, help.circumstances)?.job));
    return all
      .flatMap(({ code }, i) => {
        const date = dates[i];
        return date === null ? [] : [{ code, days: daysFrom(date.p50, schedule.finish.p50) }];
      })
      .filter(({ days }) => days > 0)
      .sort((one, other) => other.days - one.days);
  }

  /** Lay the other jobs of the shop beside this one, or leave them out. */
  share(shared: boolean): void {
    this.shared.set(shared);
    if (shared) this.plans.load(WHOLE_SHOP).subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
  }

  stop(): void {
    this.draws.stop();
  }

  /** Settle something; why it was not taken stands in `problem`. @param taken what follows once it was. */
  private settle(change: (now: StoredPlan) => PlanSettled, taken: () => void = () => undefined): void {
    this.problem.set('');
    this.plans.settle(this.machineId(), change).subscribe({
      next: taken,
      error: (failure: ApiFailure) => this.problem.set(notTaken(failure)),
    });
  }

  /** @param taken once the server has it: until then what was typed stays where it is. */
  edit(edited: PlanEdited, taken: () => void): void {
    const change = { ...edited, by: this.settings.by(), at: nowText() };
    this.settle(({ changes, ...now }) => ({ ...now, changes: [...changes.filter(({ key }) => key !== edited.key), change] }), taken);
  }

  /** What was settled of an item is taken back. */
  clear(key: string): void {
    this.settle(({ changes, ...now }) => ({ ...now, changes: changes.filter((change) => change.key !== key) }));
  }

  /** Put an item so many places down. @returns what stands in the way; undefined where it went. */
  move(key: string, by: 1 | -1): { readonly before: PlanItem; readonly after: PlanItem } | undefined {
    const told = shifted(this.items(), key, by);
    if (!told) return undefined;
    if ('before' in told) return told;
    this.settle((now) => ({ ...now, order: [...told.order] }));
    return undefined;
  }

  /** @param taken once the server has it. */
  add(item: OwnTyped, before: string | null, taken: () => void): void {
    const own: OwnItem = { ...item, id: newId(), doneAt: null, by: this.settings.by(), at: nowText() };
    this.settle((now) => {
      const changes = before === null ? now.changes : withAfter(now.changes, before, `own ${own.id}`, own);
      return { ...now, own: [...now.own, own], changes };
    }, taken);
  }

  /** An item that was added by hand is done. */
  done(id: string): void {
    this.settle((now) => ({ ...now, own: now.own.map((one) => (one.id === id ? { ...one, doneAt: nowText() } : one)) }));
  }
}

/** Why a plan was not changed. Nothing of it waits to be sent again: whoever typed it still has it before them. */
function notTaken({ status, message }: ApiFailure): string {
  if (status === 409) return 'Somebody else has changed this plan: it is shown as it stands now. Change it again.';
  return status === 0 ? 'The server cannot be reached: the plan was not changed. Try again when it answers.' : message;
}

const NOTHING_DRAWN: Drawn = { schedule: null, problem: '', refs: [], helped: [] };

/** What stands in the way, its items called by their titles. */
const withTitles = (problem: string, items: readonly PlanItem[]): string =>
  problem.replace(/"(\d+)"/g, (found, at: string) => (items[Number(at)] ? `“${items[Number(at)].title}”` : found));

/** What of a shop a plan depends on. */
const people = ({ people: all, today, timeZone, widen }: ShopPlan): unknown => [all, today, timeZone, widen];

/** Something more that an item comes after. */
function withAfter(changes: StoredPlan['changes'], key: string, after: string, { by, at, title }: OwnItem): PlanSettled['changes'] {
  const before = changes.find((change) => change.key === key);
  const change = before ?? { key, why: `after “${title}”`, by, at };
  return [...changes.filter((one) => one.key !== key), { ...change, after: [...(change.after ?? []), after] }];
}
