import { Injectable, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { of, switchMap } from 'rxjs';
import { dequal } from 'dequal';
import type { OwnItem, PlanItem, PlanSettled, StoredPlan } from '@isometra/contract';
import { arranged, ownDone, shifted } from '@isometra/work';
import type { ApiFailure } from '../data/api';
import { nowText } from '../data/clock';
import { newId } from '../data/id';
import { Plans } from '../data/plans';
import { Settings } from '../data/settings';
import { today } from '../data/when';
import type { PlanEdited } from './plan-edit';
import type { Looked } from './first-look';
import type { OwnTyped } from './own-item-form';

/** The plan of one machine as it is settled: what every page of it works with. */
@Injectable()
export class PlanState {
  private readonly plans = inject(Plans);
  private readonly settings = inject(Settings);
  /** Of which machine; '' before any is on the desk. */
  readonly machineId = signal('');
  /** Why the plan could not be fetched, or what was settled was not taken. */
  readonly problem = signal('');

  readonly shop = toSignal(toObservable(this.machineId).pipe(switchMap((id) => (id ? this.plans.of(id) : of(undefined)))));
  /** The day of the shop, as 2026-11-29. */
  readonly today = computed(() => this.shop()?.today ?? today());
  private readonly plan = computed(() => this.shop()?.machines[0]);
  readonly leftOff = computed(() => this.plan()?.leftOff ?? null);
  private readonly settled = computed((): StoredPlan | undefined => this.plan()?.settled, { equal: dequal });
  /** What is to be done, in order, as it is settled. */
  readonly items = computed(
    (): readonly PlanItem[] => {
      const [plan, settled] = [this.plan(), this.settled()];
      return plan && settled ? arranged(plan.items, settled, this.today()) : [];
    },
    { equal: dequal },
  );
  /** What comes round again, whether it has its turn or not. */
  readonly recurring = computed(() => (this.settled()?.own ?? []).filter(({ every, doneAt }) => every !== undefined && doneAt === null));
  /** What is not to be done, with the reason. */
  readonly leftOut = computed(() =>
    (this.settled()?.changes ?? []).flatMap((change) => {
      const item = change.left ? this.plan()?.items.find(({ key }) => key === change.key) : undefined;
      return item ? [{ item, why: `${change.by}: ${change.why}` }] : [];
    }),
  );

  /** Put the plan of a machine on the desk. */
  load(machineId: string): void {
    this.machineId.set(machineId);
    this.problem.set('');
    this.plans.load(machineId).subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
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

  /** What rough looks said of what is not measured yet. */
  readonly looks = computed(() => this.settled()?.looks ?? []);

  /** What a rough look said of something: how far out, null where it looks right; undefined takes it back. What is left to do follows. */
  look({ check, quantity, out, taken }: Looked): void {
    const look = out === undefined ? [] : [{ check, quantity, out, by: this.settings.by(), at: nowText() }];
    this.settle(
      ({ looks = [], ...now }) => ({
        ...now,
        looks: [...looks.filter((one) => one.check !== check || one.quantity !== quantity), ...look],
      }),
      () => {
        taken();
        this.load(this.machineId());
      },
    );
  }

  /** What was settled of an item is taken back. */
  clear(key: string): void {
    this.settle(({ changes, ...now }) => ({ ...now, changes: changes.filter((change) => change.key !== key) }));
  }

  /** Something that was added by hand. */
  own(id: string): OwnItem | undefined {
    return this.settled()?.own.find((one) => one.id === id);
  }

  /** Put an item so many places down. @returns what stands in the way; undefined where it went. */
  move(key: string, by: number): { readonly before: PlanItem; readonly after: PlanItem } | undefined {
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

  /** What was added by hand is put otherwise. @param taken once the server has it. */
  change(id: string, typed: OwnTyped, taken: () => void): void {
    const signed = { by: this.settings.by(), at: nowText() };
    this.settle((now) => ({ ...now, own: now.own.map((one) => (one.id === id ? otherwise(one, typed, signed) : one)) }), taken);
  }

  /** What was added by hand is taken off the plan, and out of what comes after it. */
  takeOff(id: string, taken: () => void): void {
    const key = `own ${id}`;
    const without = <T extends { readonly after?: readonly string[] | undefined }>(one: T): T =>
      one.after?.includes(key) ? { ...one, after: one.after.filter((other) => other !== key) } : one;
    this.settle((now) => ({ ...now, own: now.own.filter((one) => one.id !== id).map(without), changes: now.changes.map(without) }), taken);
  }

  /** An item that was added by hand is done: until it comes round again, or for good. */
  done(id: string): void {
    this.settle((now) => ({ ...now, own: now.own.map((one) => (one.id === id ? ownDone(one, nowText(), this.today()) : one)) }));
  }
}

/** Why a plan was not changed. Nothing of it waits to be sent again: whoever typed it still has it before them. */
function notTaken({ status, message }: ApiFailure): string {
  if (status === 409) return 'Somebody else has changed this plan: it is shown as it stands now. Change it again.';
  return status === 0 ? 'The server cannot be reached: the plan was not changed. Try again when it answers.' : message;
}

/** An own item with what was typed: where it no longer comes round again, nothing is left of that. */
function otherwise({ id, doneAt, lastAt }: OwnItem, typed: OwnTyped, signed: Pick<OwnItem, 'by' | 'at'>): OwnItem {
  return { ...typed, ...signed, id, doneAt, ...(lastAt !== undefined && typed.every !== undefined && { lastAt }) };
}

/** Something more that an item comes after. */
function withAfter(changes: StoredPlan['changes'], key: string, after: string, { by, at, title }: OwnItem): PlanSettled['changes'] {
  const before = changes.find((change) => change.key === key);
  const change = before ?? { key, why: `after “${title}”`, by, at };
  return [...changes.filter((one) => one.key !== key), { ...change, after: [...(change.after ?? []), after] }];
}
