import { Injectable, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { sameNotes, sameSheet } from './same';
import { BehaviorSubject, EMPTY, type Observable, catchError, concat, of, switchMap, throwError } from 'rxjs';
import {
  CHECKS,
  effectOnWork,
  parseQuantity,
  readInstrument,
  readsOf,
  wayProfile,
  type CheckDefinition,
  type Instrument,
  type PlannedSlot,
  type ValueKind,
  type WayProfile,
} from '@isometra/core';
import { readingSchema, roundWriteOf, type ReadingWrite, type RoundWrite, type StoredReading, type StoredRound } from '@isometra/contract';
import {
  inWorkingOrder,
  keyOf,
  movePlace,
  placesRead,
  readingFaults,
  sheetOf,
  solveWhatStands,
  standingReadings,
  type Solved,
} from '@isometra/work';
import * as z from 'zod';
import type { ApiFailure } from '../data/api';
import { Drafts } from '../data/drafts';
import { Outbox } from '../data/outbox';
import type { Refused } from '../data/outbox-store';
import { Rounds } from '../data/rounds';
import { Settings } from '../data/settings';
import { Desk } from '../machine/desk';
import { asRead } from './as-read';

/** A place on the bench: what was planned and what was read there in the set-up in hand. */
export interface BenchSlot extends PlannedSlot {
  readonly index: number;
  readonly readings: readonly StoredReading[];
  readonly done: boolean;
}

/** What is being corrected: the reading that will be superseded. */
export interface Correction {
  readonly reading: StoredReading;
  readonly why: string;
}

/** The bench's state: the round, where we are in it, what has been typed, and the call. */
@Injectable()
export class BenchStore {
  private readonly desk = inject(Desk);
  private readonly rounds = inject(Rounds);
  private readonly settings = inject(Settings);
  private readonly drafts = inject(Drafts);
  private readonly outbox = inject(Outbox);
  private readonly allRefused = toSignal(this.outbox.refused$, { requireSync: true });

  private readonly roundId$ = new BehaviorSubject<string | null>(null);
  /** The round on the bench; null as long as nobody knows it. */
  readonly round = toSignal(this.roundId$.pipe(switchMap((id) => (id === null ? of(null) : concat(of(null), this.rounds.one(id))))), {
    requireSync: true,
  });
  readonly typed = signal('');
  readonly fault = signal('');
  readonly correction = signal<Correction | null>(null);
  /** The place chosen by hand; null follows the plan. */
  private readonly chosen = signal<number | null>(null);
  /** The set-up chosen by hand; null follows the readings. */
  private readonly chosenSetUp = signal<number | null>(null);
  readonly setUp = computed(() => this.chosenSetUp() ?? (this.round()?.readings ?? []).reduce((most, { set }) => Math.max(most, set), 1));

  readonly check = computed(() => CHECKS.get(this.round()?.check ?? '') as CheckDefinition | undefined);
  /** The same one as long as the round says the same of it, whatever else is written down. */
  readonly instrument = computed(
    (): Instrument | undefined => {
      const raw = this.round()?.instrument;
      return raw ? readInstrument(raw).instrument : undefined;
    },
    { equal: (one, other) => JSON.stringify(one) === JSON.stringify(other) },
  );
  private readonly parsedSetup = computed(() => this.check()?.setup.safeParse(this.round()?.setup ?? {}));
  readonly setup = computed((): Readonly<Record<string, unknown>> => {
    const parsed = this.parsedSetup();
    return parsed?.success ? parsed.data : {};
  });
  /** What a reading of a place is read on. */
  kindOf(keys: Readonly<Record<string, unknown>>): ValueKind {
    const check = this.check();
    return check ? readsOf(check, this.setup(), keys) : 'indicator';
  }
  /** What the reading in hand is read on. */
  readonly valueKind = computed(() => this.kindOf(this.correction()?.reading.keys ?? this.current()?.keys ?? {}));
  readonly standing = computed(() => standingReadings(this.round()?.readings ?? []));
  /** Places (`at`) that were read, mm. */
  readonly places = computed(() => placesRead(this.standing()));
  /** The round as a sheet: what the call is worked out from. The same one as long as it says the same: taken, sent and acknowledged are one call. */
  readonly sheet = computed(
    () => {
      const round = this.round();
      return round && sheetOf(round, round.readings, this.desk.facts(round));
    },
    { equal: sameSheet },
  );
  private readonly waits = computed(() => this.desk.waits(this.check()?.id ?? ''), { equal: sameNotes });
  readonly solved = computed((): Solved => {
    const sheet = this.sheet();
    return sheet ? solveWhatStands(sheet, { waits: this.waits() }) : { finding: null, faults: [] };
  });
  /** The one move that comes next: the height before the side. */
  readonly firstMove = computed(() => inWorkingOrder(this.solved().finding?.moves ?? []).at(0));
  /** Readings of this round that the server refused: drafts to put right. */
  readonly refused = computed(() => this.allRefused().filter(({ what, about }) => what === 'reading' && about === this.round()?.id));

  /** What was read as a profile, where the check has one. */
  readonly profile = computed((): WayProfile | undefined =>
    this.check()?.profile && this.solved().finding ? wayProfile(this.sheet()) : undefined,
  );

  readonly slots = computed((): BenchSlot[] => {
    const check = this.check();
    const plan = check?.plan.safeParse(this.round()?.plan ?? {});
    const setup = this.parsedSetup();
    if (!check || !setup?.success) return [];
    const setUp = this.setUp();
    const here = this.standing().filter((reading) => reading.set === setUp);
    return withReadings(check.slots(setup.data, plan?.success ? plan.data : check.plan.parse({})), here);
  });
  /** The place to read now. */
  readonly current = computed(() => {
    const slots = this.slots();
    const chosen = this.chosen();
    if (chosen !== null && slots[chosen]) return slots[chosen];
    return slots.find((slot) => !slot.done);
  });
  readonly complete = computed(() => this.slots().length > 0 && this.slots().every((slot) => slot.done));
  readonly work = computed(() => {
    const { finding } = this.solved();
    const purpose = this.round()?.purpose;
    if (!finding || !purpose) return [];
    const size = (raw: unknown) => {
      const parsed = raw === undefined ? undefined : parseQuantity(raw, 'length');
      return parsed?.ok ? parsed.value : undefined;
    };
    return effectOnWork(finding, {
      kind: purpose.kind,
      length: size(purpose.length),
      diameter: size(purpose.diameter),
      centreDistance: this.setup()['centreDistance'] as number | undefined,
    });
  });

  /** Put a round on the bench. Fails with an ApiFailure when the server does not know it and nobody here does. */
  open(id: string): Observable<void> {
    this.roundId$.next(id);
    this.chosen.set(null);
    this.correction.set(null);
    this.fault.set('');
    this.chosenSetUp.set(null);
    this.typed.set(this.drafts.read(`reading:${id}`, z.string()) ?? '');
    return this.rounds.load(id).pipe(catchError((failure: unknown) => (this.rounds.knows(id) ? EMPTY : throwError(() => failure))));
  }

  type(text: string): void {
    this.typed.set(text);
    this.fault.set('');
    const id = this.round()?.id;
    if (id) this.drafts.keep(`reading:${id}`, text);
  }

  choose(index: number | null): void {
    this.chosen.set(index);
    this.correction.set(null);
  }

  step(by: number): void {
    const slots = this.slots();
    if (slots.length === 0) return;
    const now = this.current()?.index ?? (by > 0 ? -1 : slots.length);
    this.choose(Math.min(slots.length - 1, Math.max(0, now + by)));
  }

  /** Read the last place once more. */
  repeatLast(): void {
    const last = this.standing()
      .filter((reading) => reading.set === this.setUp())
      .at(-1);
    const slot = last && this.slots().find((entry) => keyOf(entry.keys) === keyOf(last.keys));
    if (slot) this.choose(slot.index);
  }

  /** Begin another set-up: the bar taken out and put back. */
  anotherSetUp(): void {
    this.chosenSetUp.set(this.setUp() + 1);
    this.chosen.set(null);
  }

  correct(reading: StoredReading): void {
    this.correction.set({ reading, why: 'misread' });
    this.type(String(reading.value ?? ''));
  }

  /** Take what has been typed at the current place. Returns whether it was taken. */
  take(): boolean {
    const round = this.round();
    const check = this.check();
    const correction = this.correction();
    const keys = correction?.reading.keys ?? this.current()?.keys;
    if (!round || !check || !keys) return false;
    const text = asRead(this.typed(), this.valueKind(), this.instrument(), this.settings.system());
    const reading = {
      keys: { ...keys },
      value: text,
      set: correction?.reading.set ?? this.setUp(),
      supersedes: correction?.reading.id ?? null,
    };
    const fault = this.faultOf(round, reading);
    if (fault) {
      this.fault.set(fault);
      return false;
    }
    this.write(round, { ...reading, why: correction?.why ?? null });
    this.type('');
    this.correction.set(null);
    this.chosen.set(null);
    return true;
  }

  withdraw(reading: StoredReading): void {
    const round = this.round();
    if (!round) return;
    this.write(round, { keys: reading.keys, value: null, set: reading.set, supersedes: reading.id, why: 'withdrawn' });
  }

  /** A change of setup, plan, conditions or instrument goes to the server at once. */
  change(round: StoredRound, part: Partial<Pick<RoundWrite, 'setup' | 'plan' | 'conditions' | 'instrument'>>) {
    return this.rounds.change({ ...roundWriteOf(round), ...part, by: this.settings.by() });
  }

  /**
   * Put a place where the stylus really goes, mm. What was read there was read at the new place: each such reading is
   * superseded by itself at it. What is wrong is said in `fault`, and nothing is changed.
   */
  placeAt(slot: BenchSlot, at: number): void {
    const [round, check] = [this.round(), this.check()];
    if (!round || !check) return;
    const about = { setup: this.setup(), plan: round.plan, slots: this.slots(), readings: this.standing() };
    const moved = movePlace(check, about, slot, at);
    this.fault.set(moved.ok ? '' : moved.message);
    if (!moved.ok || moved.plan === round.plan) return;
    this.change(round, { plan: { ...moved.plan } }).subscribe({
      next: () => {
        for (const { id, keys, value, set } of moved.readings)
          this.write(round, { keys: { ...keys, at }, value, set, supersedes: id, why: 'the place was put right' });
      },
      error: (failure: ApiFailure) => this.fault.set(failure.message),
    });
  }

  /** Why the check would not read this; empty when it would. */
  private faultOf(round: StoredRound, reading: Pick<ReadingWrite, 'keys' | 'value' | 'set' | 'supersedes'>): string {
    const [fault] = readingFaults(round, reading);
    return fault ? `${fault.path === 'value' ? 'The reading' : fault.path} ${fault.message}. Try: ${fault.example}` : '';
  }

  private write(round: StoredRound, reading: Pick<ReadingWrite, 'keys' | 'value' | 'set' | 'supersedes' | 'why'>): void {
    this.rounds.takeReading(round, { ...reading, id: crypto.randomUUID(), by: this.settings.by(), at: new Date().toISOString() });
  }

  /** Take a refused reading back into the field, at its place; it leaves the drafts. */
  putRight(refused: Refused): void {
    const reading = readingSchema.safeParse(refused.body).data;
    if (!reading) return;
    const slot = this.slots().find((entry) => keyOf(entry.keys) === keyOf(reading.keys));
    if (slot) this.choose(slot.index);
    this.type(String(reading.value ?? ''));
    this.fault.set(refused.faults.map(({ message }) => message).join('; '));
    void this.outbox.drop(refused);
  }

  /** Give a refused reading up. */
  giveUp(refused: Refused): void {
    void this.outbox.drop(refused);
  }
}

/**
 * Lay readings on the planned places. The closing place is the first one come back to: only a
 * reading taken after another place counts for it. Places that were read but not planned follow; when
 * nothing was read where it was planned, they are the plan.
 */
export function withReadings(planned: readonly PlannedSlot[], readings: readonly StoredReading[]): BenchSlot[] {
  // Runs of readings at one place without another between them, by place.
  const runs = new Map<string, StoredReading[][]>();
  let before = '';
  for (const reading of readings) {
    const key = keyOf(reading.keys);
    const own = runs.get(key) ?? [];
    if (key === before) own.at(-1)?.push(reading);
    else own.push([reading]);
    runs.set(key, own);
    before = key;
  }
  const plannedKeys = new Set(planned.map((slot) => keyOf(slot.keys)));
  const strays = [...runs]
    .filter(([key]) => !plannedKeys.has(key))
    .map(([, [[{ keys }]]]): PlannedSlot => ({ keys, label: placeName(keys) }));
  const met = strays.length < runs.size;
  const slots = [...(strays.length && !met ? [] : planned), ...strays];
  return slots.map(({ keys, label, ask, closing, movable }, index) => {
    const own = runs.get(keyOf(keys)) ?? [];
    const taken = (closing ? own.slice(1).at(-1) : own[0]) ?? [];
    return { keys, label, ask, closing, movable, index, readings: taken, done: taken.length > 0 };
  });
}

/** A place that nobody planned, by its keys. */
function placeName(keys: Readonly<Record<string, unknown>>): string {
  const words = Object.entries(keys)
    .filter(([key]) => key !== 'at')
    .map(([, value]) => String(value));
  return words.length ? words.join(', ') : 'Place';
}
