import { Injectable, computed, inject, signal } from '@angular/core';
import {
  CHECKS,
  effectOnWork,
  parseQuantity,
  readingValue,
  readInstrument,
  valueKindOf,
  wayProfile,
  type CheckDefinition,
  type Instrument,
  type PlannedSlot,
  type WayProfile,
} from '@isometra/core';
import {
  placesRead,
  roundWriteOf,
  sheetOf,
  standingReadings,
  trySolve,
  type ReadingWrite,
  type Round,
  type StoredReading,
} from '@isometra/contract';
import { Drafts } from '../data/drafts';
import { Rounds } from '../data/rounds';
import { Settings } from '../data/settings';
import { Desk } from '../tailstock/desk';
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

const names = new WeakMap<object, string>();

/** One text for one place, whatever the order of its keys. */
export function keyOf(keys: Readonly<Record<string, unknown>>): string {
  const known = names.get(keys) ?? JSON.stringify(Object.entries(keys).sort());
  names.set(keys, known);
  return known;
}

/** The bench's state: the round, where we are in it, what has been typed, and the call. */
@Injectable()
export class BenchStore {
  private readonly desk = inject(Desk);
  private readonly rounds = inject(Rounds);
  private readonly settings = inject(Settings);
  private readonly drafts = inject(Drafts);

  readonly round = signal<Round | null>(null);
  readonly typed = signal('');
  readonly fault = signal('');
  readonly correction = signal<Correction | null>(null);
  /** The place chosen by hand; null follows the plan. */
  private readonly chosen = signal<number | null>(null);
  readonly setUp = signal(1);

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
  readonly valueKind = computed(() => {
    const check = this.check();
    return check ? valueKindOf(check, this.setup()) : 'indicator';
  });
  readonly standing = computed(() => standingReadings(this.round()?.readings ?? []));
  /** Places (`at`) that were read, mm. */
  readonly places = computed(() => placesRead(this.standing()));
  /** The round as a sheet: what the call is worked out from. */
  readonly sheet = computed(() => {
    const round = this.round();
    return (
      round && sheetOf(round, round.readings, { card: this.desk.machine()?.card, stock: this.desk.stock(), ...this.desk.judging(round) })
    );
  });
  readonly solved = computed(() => {
    const sheet = this.sheet();
    return sheet ? trySolve(sheet) : { finding: null, faults: [] };
  });

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

  open(round: Round): void {
    const fresh = this.round()?.id !== round.id;
    this.round.set(round);
    if (!fresh) return;
    this.setUp.set(round.readings.reduce((most, reading) => Math.max(most, reading.set), 1));
    this.chosen.set(null);
    this.typed.set(this.drafts.read<string>(`reading:${round.id}`) ?? '');
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
    this.setUp.update((set) => set + 1);
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
    const parsed = readingValue(text, this.valueKind(), this.instrument());
    if (!parsed.ok) {
      this.fault.set(`The reading ${parsed.message}. Try: ${parsed.example}`);
      return false;
    }
    this.write({
      keys: { ...keys },
      value: text,
      set: correction?.reading.set ?? this.setUp(),
      supersedes: correction?.reading.id ?? null,
      why: correction?.why ?? null,
    });
    this.type('');
    this.correction.set(null);
    this.chosen.set(null);
    return true;
  }

  withdraw(reading: StoredReading): void {
    this.write({ keys: reading.keys, value: null, set: reading.set, supersedes: reading.id, why: 'withdrawn' });
  }

  /** A change of setup, plan, conditions or instrument goes to the server at once. */
  change(part: Partial<Pick<Round, 'setup' | 'plan' | 'conditions' | 'instrument'>>) {
    return this.rounds.change({ ...roundWriteOf(this.round() as Round), ...part, by: this.settings.by() });
  }

  private write(reading: Pick<ReadingWrite, 'keys' | 'value' | 'set' | 'supersedes' | 'why'>): void {
    const round = this.round();
    if (!round) return;
    this.rounds.takeReading(round.id, { ...reading, id: crypto.randomUUID(), by: this.settings.by(), at: new Date().toISOString() });
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
  return slots.map(({ keys, label, ask, closing }, index) => {
    const own = runs.get(keyOf(keys)) ?? [];
    const taken = (closing ? own.slice(1).at(-1) : own[0]) ?? [];
    return { keys, label, ask, closing, index, readings: taken, done: taken.length > 0 };
  });
}

/** A place that nobody planned, by its keys. */
function placeName(keys: Readonly<Record<string, unknown>>): string {
  const words = Object.entries(keys)
    .filter(([key]) => key !== 'at')
    .map(([, value]) => String(value));
  return words.length ? words.join(', ') : 'Place';
}
