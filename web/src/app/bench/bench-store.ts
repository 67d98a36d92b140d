import { Injectable, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { nowText } from '../data/clock';
import { sameNotes, sameSheet } from './same';
import { BehaviorSubject, EMPTY, type Observable, catchError, concat, of, switchMap, throwError } from 'rxjs';
import { dequal } from 'dequal';
import {
  CHECKS,
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
  placeOf,
  addPlace,
  dropPlace,
  movePlace,
  placesRead,
  readingFaults,
  sheetOf,
  solveWhatStands,
  standingReadings,
  type Moved,
  type PlannedPlaces,
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
import { withReadings, type BenchSlot } from './bench-slots';
import { Besides } from './besides';
import { superseding, workDone, type Superseded } from './bench-round';
import { formSchema, type FormValue } from '../ui/form-model';

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
    { equal: dequal },
  );
  /** Read again only when it was written otherwise: a reading taken changes nothing of it. */
  private readonly setupText = computed(() => JSON.stringify(this.round()?.setup ?? {}));
  private readonly planText = computed(() => JSON.stringify(this.round()?.plan ?? {}));
  private readonly parsedSetup = computed(() => this.check()?.setup.safeParse(JSON.parse(this.setupText())));
  readonly setup = computed((): Readonly<Record<string, unknown>> => {
    const parsed = this.parsedSetup();
    return parsed?.success ? parsed.data : {};
  });
  /** What a reading of a place is read on. */
  kindOf(keys: Readonly<Record<string, unknown>>): ValueKind {
    const check = this.check();
    if (!check) return 'indicator';
    const felt = check.beside?.some(({ instead, when }) => instead && (when?.(keys) ?? true));
    return felt ? 'none' : readsOf(check, this.setup(), keys);
  }
  /** What a reading says, as it was typed: its figure, or what was felt instead of one. */
  toldBy({ value, keys }: StoredReading): string {
    const felt = (this.check()?.beside ?? []).flatMap(({ key, instead }) =>
      instead && keys[key] !== undefined ? [String(keys[key])] : [],
    );
    // "0.10–0.12 mm": a unit that both have is said once.
    const [first = '', second = ''] = felt;
    const unit = /\s*[a-zµ"]+$/i.exec(second)?.[0] ?? '';
    return String(value ?? (second ? `${unit && first.endsWith(unit) ? first.slice(0, -unit.length) : first}–${second}` : first));
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

  /** The places of the plan, the same ones from reading to reading. */
  private readonly planned = computed((): readonly PlannedSlot[] => {
    const [check, setup] = [this.check(), this.parsedSetup()];
    const plan = check?.plan.safeParse(JSON.parse(this.planText()));
    if (!check || !setup?.success) return [];
    return check.slots(setup.data, plan?.success ? plan.data : check.plan.parse({}));
  });
  readonly slots = computed((): BenchSlot[] => {
    const [check, setUp] = [this.check(), this.setUp()];
    if (!check || !this.parsedSetup()?.success) return [];
    const here = this.standing().filter((reading) => reading.set === setUp);
    return withReadings(this.planned(), here, (keys) => placeOf(check, keys));
  });
  /** The place to read now. */
  readonly current = computed(() => {
    const slots = this.slots();
    const chosen = this.chosen();
    if (chosen !== null && slots[chosen]) return slots[chosen];
    return slots.find((slot) => !slot.done);
  });
  /** What is asked beside the figure. */
  readonly besides = new Besides(this.check, () => this.correction()?.reading.keys ?? this.current()?.keys);
  readonly complete = computed(() => this.slots().length > 0 && this.slots().every((slot) => slot.done));
  readonly work = computed(() => workDone(this.solved().finding, this.round(), this.setup()));

  /** Put a round on the bench. Fails with an ApiFailure when the server does not know it and nobody here does. */
  open(id: string): Observable<void> {
    this.roundId$.next(id);
    this.chosen.set(null);
    this.correction.set(null);
    this.fault.set('');
    this.chosenSetUp.set(null);
    this.typed.set(this.drafts.read(`reading:${id}`, z.string()) ?? '');
    this.besides.typed.set(this.drafts.read(`beside:${id}`, formSchema) ?? {});
    return this.rounds.load(id).pipe(catchError((failure: unknown) => (this.rounds.knows(id) ? EMPTY : throwError(() => failure))));
  }

  type(text: string): void {
    this.typed.set(text);
    this.fault.set('');
    const id = this.round()?.id;
    if (id) this.drafts.keep(`reading:${id}`, text);
  }

  typeBeside(value: FormValue): void {
    this.besides.typed.set(value);
    this.fault.set('');
    const id = this.round()?.id;
    if (id) this.drafts.keep(`beside:${id}`, value);
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
    const slot = last && this.slotOf(last.keys);
    if (slot) this.choose(slot.index);
  }

  /** The place on the bench that keys tell. */
  slotOf(keys: StoredReading['keys']): BenchSlot | undefined {
    const check = this.check();
    return check && this.slots().find((entry) => placeOf(check, entry.keys) === placeOf(check, keys));
  }

  /** Begin another set-up: the bar taken out and put back. */
  anotherSetUp(): void {
    this.chosenSetUp.set(this.setUp() + 1);
    this.chosen.set(null);
  }

  correct(reading: StoredReading): void {
    this.correction.set({ reading, why: 'misread' });
    this.besides.recall(reading.keys);
    this.type(String(reading.value ?? ''));
  }

  /** Take what has been typed at the current place. Returns whether it was taken. */
  take(): boolean {
    const round = this.round();
    const check = this.check();
    const correction = this.correction();
    const keys = correction?.reading.keys ?? this.current()?.keys;
    if (!round || !check || !keys) return false;
    // What is felt has no figure of a dial: it stands beside.
    const felt = this.valueKind() === 'none';
    const text = felt ? null : asRead(this.typed(), this.valueKind(), this.instrument(), this.settings.system());
    const reading = {
      keys: this.besides.onto(keys, this.settings.system()),
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
    this.typeBeside(this.besides.staying());
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
    this.replan((check, about) => movePlace(check, about, slot, at), { at, why: 'the place was put right' });
  }

  /** One place more, half-way to the next one; its place is then typed or dragged. */
  addPlace(slot: BenchSlot): void {
    this.replan((check, about) => addPlace(check, about, slot));
  }

  /** One place fewer: what was read there is withdrawn. */
  dropPlace(slot: BenchSlot): void {
    this.replan((check, about) => dropPlace(check, about, slot), { withdrawn: true, why: 'the place was taken out' });
  }

  /** Change the places of the plan; readings it touches are superseded. What is wrong is said, and nothing is changed. */
  private replan(
    change: (check: CheckDefinition, about: PlannedPlaces<StoredReading>) => Moved<StoredReading>,
    superseded: Superseded = { why: '' },
  ): void {
    const [round, check] = [this.round(), this.check()];
    if (!round || !check) return;
    const moved = change(check, { setup: this.setup(), plan: round.plan, slots: this.slots(), readings: this.standing() });
    this.fault.set(moved.ok ? '' : moved.message);
    if (!moved.ok || moved.plan === round.plan) return;
    this.change(round, { plan: { ...moved.plan } }).subscribe({
      next: () => moved.readings.forEach((reading) => this.write(round, superseding(reading, superseded))),
      error: (failure: ApiFailure) => this.fault.set(failure.message),
    });
  }

  /** Why the check would not read this; empty when it would. */
  private faultOf(round: StoredRound, reading: Pick<ReadingWrite, 'keys' | 'value' | 'set' | 'supersedes'>): string {
    const [fault] = readingFaults(round, reading);
    return fault ? `${fault.path === 'value' ? 'The reading' : fault.path} ${fault.message}. Try: ${fault.example}` : '';
  }

  private write(round: StoredRound, reading: Pick<ReadingWrite, 'keys' | 'value' | 'set' | 'supersedes' | 'why'>): void {
    this.rounds.takeReading(round, { ...reading, id: crypto.randomUUID(), by: this.settings.by(), at: nowText() });
  }

  /** Take a refused reading back into the field, at its place; it leaves the drafts. */
  putRight(refused: Refused): void {
    const reading = readingSchema.safeParse(refused.body).data;
    if (!reading) return;
    const slot = this.slotOf(reading.keys);
    if (slot) this.choose(slot.index);
    this.besides.recall(reading.keys);
    this.type(String(reading.value ?? ''));
    this.fault.set(refused.faults.map(({ message }) => message).join('; '));
    void this.outbox.drop(refused);
  }

  /** Give a refused reading up. */
  giveUp(refused: Refused): void {
    void this.outbox.drop(refused);
  }
}
