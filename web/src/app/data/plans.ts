import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, debounceTime, defer, filter, finalize, groupBy, map, mergeMap, type Observable, tap } from 'rxjs';
import * as z from 'zod';
import { shopPlanSchema, storedPlanSchema, type PlanSettled, type ShopPlan, type StoredPlan } from '@isometra/contract';
import { Api } from './api';
import { Loads, Writes } from './flows';
import { Outbox } from './outbox';
import { Settings } from './settings';

/** What is taken within this time is asked after once, ms. */
const TOGETHER = 300;

const NOTHING = { changes: [], own: [], order: [], version: 0 };

/** Under this name the plan of all machines is kept. */
export const WHOLE_SHOP = '';

/** Plans as the server works them out: of one machine, and of the whole shop. */
@Injectable({ providedIn: 'root' })
export class Plans {
  private readonly api = inject(Api);
  private readonly settings = inject(Settings);
  private readonly outbox = inject(Outbox);
  private readonly writes = new Writes();
  private readonly server$ = new BehaviorSubject<ReadonlyMap<string, ShopPlan>>(new Map());
  private readonly loads = new Loads(
    (machineId) => this.api.get(machineId === WHOLE_SHOP ? '/plans' : `/machines/${machineId}/plan`, shopPlanSchema),
    (plan, machineId) => this.take(plan, machineId),
  ).askWhenBack();

  constructor() {
    // What was taken down changes what is left to do; who does not look at a plan asks when they come to it.
    this.outbox.answers$
      .pipe(
        map(({ entry }) => entry.machineId),
        filter((machineId): machineId is string => machineId !== null && !!this.lookedAt.get(machineId)),
        groupBy((machineId) => machineId),
        mergeMap((taken) => taken.pipe(debounceTime(TOGETHER))),
      )
      .subscribe((machineId) => this.loads.askQuietly(machineId));
  }

  /** Ask for a plan; of the whole shop under `WHOLE_SHOP`. Fails with an ApiFailure. */
  load(machineId: string): Observable<void> {
    return this.loads.ask(machineId);
  }

  /** How many look at a plan now, by machine. */
  private readonly lookedAt = new Map<string, number>();
  private look(machineId: string, more: 1 | -1): void {
    this.lookedAt.set(machineId, (this.lookedAt.get(machineId) ?? 0) + more);
  }

  /** While somebody looks at it, it is asked for again when something of its machine was taken down. */
  of(machineId: string): Observable<ShopPlan | undefined> {
    return defer(() => {
      this.look(machineId, 1);
      return this.server$.pipe(map((plans) => plans.get(machineId)));
    }).pipe(finalize(() => this.look(machineId, -1)));
  }

  /** Changes of each machine that are on their way. */
  private readonly onTheirWay = new Map<string, number>();
  /** What the server has said last of what is settled, by machine. */
  private readonly confirmed = new Map<string, StoredPlan>();

  /** A plan as the server tells it. What is on its way stays as it is shown, and is the same wherever the machine is listed. */
  private take(plan: ShopPlan, key: string): void {
    for (const { machineId, settled } of plan.machines) this.confirmed.set(machineId, settled);
    const machines = plan.machines.map((one) =>
      this.onTheirWay.get(one.machineId) ? { ...one, settled: this.settled(one.machineId) } : one,
    );
    this.server$.next(new Map(this.server$.value).set(key, { ...plan, machines }));
    for (const { settled } of machines) this.keep(settled);
  }

  /**
   * Settle something of the plan of a machine: shown at once, sent in its turn. Where the server does not take it, what stood before is
   * shown again. Fails with an ApiFailure.
   */
  settle(machineId: string, change: (now: StoredPlan) => PlanSettled): Observable<StoredPlan> {
    const { version } = this.settled(machineId);
    const { changes, own, order, looks } = change(this.settled(machineId));
    const settled = { changes, own, order, ...(looks && { looks }) };
    this.keep({ ...settled, machineId, version });
    this.onTheirWay.set(machineId, (this.onTheirWay.get(machineId) ?? 0) + 1);
    return this.writes.send(() => {
      // What went before it has been answered: its version is the one that stands.
      const body = { machineId, ...settled, version: this.settled(machineId).version, by: this.settings.by() };
      return this.api.send('PUT', `/machines/${machineId}/plan`, body, storedPlanSchema).pipe(
        tap({
          next: (stored) => this.taken(stored),
          error: () => {
            this.onTheirWay.set(machineId, 0);
            this.keep(this.confirmed.get(machineId) ?? { ...NOTHING, machineId });
            this.loads.askQuietly(machineId);
          },
        }),
      );
    });
  }

  /** The server has taken a change: what was changed since stays as it is shown. */
  private taken(stored: StoredPlan): void {
    const left = Math.max(0, (this.onTheirWay.get(stored.machineId) ?? 0) - 1);
    this.onTheirWay.set(stored.machineId, left);
    this.confirmed.set(stored.machineId, stored);
    this.keep(left > 0 ? { ...this.settled(stored.machineId), version: stored.version } : stored);
  }

  private settled(machineId: string): StoredPlan {
    for (const plan of this.server$.value.values()) {
      const found = plan.machines.find((one) => one.machineId === machineId);
      if (found) return found.settled;
    }
    return { ...NOTHING, machineId };
  }

  private keep(stored: StoredPlan): void {
    const next = [...this.server$.value].map(
      ([key, plan]) =>
        [
          key,
          { ...plan, machines: plan.machines.map((one) => (one.machineId === stored.machineId ? { ...one, settled: stored } : one)) },
        ] as const,
    );
    this.server$.next(new Map(next));
  }

  /** Name the date that a plan came to: it is held against what comes. */
  name(machineId: string, dates: { readonly p10: string; readonly p50: string; readonly p90: string }): Observable<unknown> {
    return this.api.send('POST', `/machines/${machineId}/plan/named`, dates, z.unknown());
  }
}
