import { Injectable, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { catchError, debounceTime, distinctUntilChanged, from, map, merge, of, switchMap, type Observable } from 'rxjs';
import { dequal } from 'dequal';
import type { PlanItem, Schedule, ShopPlan } from '@isometra/contract';
import { daysBetween, helps, jobOf, planToSchedule, type HelpCode, type JobRef, type PlanToSchedule } from '@isometra/work';
import type { ApiFailure } from '../data/api';
import { Plans, WHOLE_SHOP } from '../data/plans';
import { PlanDraws } from './plan-draws';
import { PlanState } from './plan-state';

/** Draws of a plan on show; and of one that it is compared with. */
const DRAWS = 10_000;
/** With the other jobs there is several times as much to lay out. */
const SHARED_DRAWS = 2000;
const FEW_DRAWS = 200;
const SHARED_FEW = 60;
/** What is changed within this time is drawn once, ms. */
const TOGETHER = 150;

/** What was drawn of a plan. */
export interface Drawn {
  /** What it was drawn from; null where nothing was. */
  readonly sketch: Sketch | null;
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

/** When a plan is done, as it is drawn: only for a page that names the date. */
@Injectable()
export class PlanDate {
  private readonly plans = inject(Plans);
  private readonly state = inject(PlanState);
  private readonly draws = inject(PlanDraws);
  private readonly machineId = this.state.machineId;

  /** Whether the other jobs of the shop take their share of people and kit. */
  readonly shared = signal(false);
  private readonly whole = toSignal(this.plans.of(WHOLE_SHOP));
  /** The plans of the other machines, in the order in which they are worked at; and how many go before this one. */
  private readonly beside = computed(() => {
    const all = this.shared() ? (this.whole()?.machines ?? []) : [];
    const others = all.filter(({ machineId }) => machineId !== this.machineId()).map((one) => planToSchedule(one, this.state.today()));
    return {
      others,
      at: Math.max(
        0,
        all.findIndex(({ machineId }) => machineId === this.machineId()),
      ),
    };
  });
  private readonly sketch = computed((): Sketch | null => {
    const [shop, items] = [this.state.shop(), this.state.items()];
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
    toObservable(this.drawn).pipe(
      switchMap(({ sketch, schedule }) => (sketch && schedule ? merge(of(null), from(this.compare(sketch, schedule))) : of(null))),
    ),
    { initialValue: null as readonly Saved[] | null },
  );

  /** How much later each thing that is waited for may come, by the key of its item; null while that is being worked out. */
  readonly room = toSignal(
    toObservable(this.drawn).pipe(
      switchMap(({ sketch, schedule }) => (sketch && schedule ? merge(of(null), from(this.rooms(sketch))) : of(null))),
      catchError(() => of(null)),
    ),
    { initialValue: null as ReadonlyMap<string, number> | null },
  );

  private async rooms(sketch: Sketch): Promise<ReadonlyMap<string, number>> {
    const { plans, circumstances } = this.jobs({ ...sketch, others: [], at: 0 });
    const made = jobOf(plans, circumstances);
    const told = made && (await this.draws.room(made.job));
    const rooms = told && 'value' in told ? told.value : [];
    return new Map(rooms.flatMap(({ id, days }) => (made ? [[made.refs[Number(id)].key, days] as const] : [])));
  }

  private jobs({ shop, items, others, at }: Sketch) {
    const [machine] = shop.machines;
    const circumstances = { start: shop.today, timeZone: shop.timeZone, people: shop.people, widen: shop.widen };
    const own = { machineId: machine.machineId, number: machine.number, items };
    return { plans: [...others.slice(0, at), own, ...others.slice(at)], circumstances };
  }

  /** What of a job is of this machine: its end is that of the last of it, whatever else is in the job. */
  private endsOf(refs: readonly JobRef[]): readonly string[] {
    return refs.flatMap(({ machineId }, i) => (machineId === this.machineId() ? [String(i)] : []));
  }

  private drawing(sketch: Sketch): Observable<Drawn> {
    const { plans, circumstances } = this.jobs(sketch);
    const made = jobOf(plans, { ...circumstances, draws: sketch.others.length ? SHARED_DRAWS : DRAWS });
    if (!made) return of({ ...NOTHING_DRAWN, problem: 'Nobody has hours to work: give them on the page of the shop.' });
    return from(this.draws.draw(made.job, this.endsOf(made.refs))).pipe(
      map((answer): Drawn => {
        const { refs, helped } = made;
        const titles = plans.flatMap((plan) => plan.items);
        if ('problem' in answer) return { sketch, schedule: null, problem: withTitles(answer.problem, titles), refs, helped };
        this.plans
          .name(this.machineId(), answer.value.finish)
          .pipe(catchError(() => of(undefined)))
          .subscribe();
        return { sketch, schedule: answer.value, problem: '', refs, helped };
      }),
      catchError((error: Error) => of({ ...NOTHING_DRAWN, problem: error.message })),
    );
  }

  /** The same job otherwise, drawn less often: what each would save. */
  private async compare(sketch: Sketch, schedule: Schedule): Promise<readonly Saved[]> {
    const { plans, circumstances } = this.jobs(sketch);
    const all = helps(plans, { ...circumstances, draws: sketch.others.length ? SHARED_FEW : FEW_DRAWS });
    const dates = await this.draws.finishes(
      all.map((help) => {
        const made = jobOf(help.plans, help.circumstances);
        return { job: made?.job, ends: this.endsOf(made?.refs ?? []) };
      }),
    );
    return all
      .flatMap(({ code }, i) => {
        const date = dates[i];
        return date === null ? [] : [{ code, days: daysBetween(date.p50, schedule.finish.p50) }];
      })
      .filter(({ days }) => days > 0)
      .sort((one, other) => other.days - one.days);
  }

  /** Lay the other jobs of the shop beside this one, or leave them out. */
  share(shared: boolean): void {
    this.shared.set(shared);
    if (shared) this.plans.load(WHOLE_SHOP).subscribe({ error: (failure: ApiFailure) => this.state.problem.set(failure.message) });
  }

  stop(): void {
    this.draws.stop();
  }
}

const NOTHING_DRAWN: Drawn = { sketch: null, schedule: null, problem: '', refs: [], helped: [] };

/** What stands in the way, its items called by their titles. */
const withTitles = (problem: string, items: readonly PlanItem[]): string =>
  problem.replace(/"(\d+)"/g, (found, at: string) => (items[Number(at)] ? `“${items[Number(at)].title}”` : found));

/** What of a shop a plan depends on. */
const people = ({ people: all, today, timeZone, widen }: ShopPlan): unknown => [all, today, timeZone, widen];
