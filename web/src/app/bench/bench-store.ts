import { dequal } from 'dequal';
import { Injectable, inject, signal } from '@angular/core';
import type { Observable, Subscription } from 'rxjs';
import * as z from 'zod';
import { readingValue, type CheckDefinition, type ValueKind } from '@isometra/core';
import { readingSchema, roundWriteOf, type ReadingWrite, type RoundWrite, type StoredReading, type StoredRound } from '@isometra/contract';
import {
  addPlace,
  dropPlace,
  faultWords,
  isTenTimes,
  liesApart,
  lineOf,
  TEN_DIVISIONS,
  keyOf,
  movePlace,
  placeOf,
  readingFaults,
  type BenchSlot,
  type Moved,
  type PlannedPlaces,
} from '@isometra/work';
import { newId } from '../data/id';
import type { ApiFailure } from '../data/api';
import { nowText } from '../data/clock';
import { Drafts } from '../data/drafts';
import type { Refused } from '../data/outbox-store';
import { afterFrame } from '../ui/after-frame';
import { formSchema, type FormValue } from '../ui/form-model';
import { askedReading, askedSize, asRead } from './as-read';
import { superseding, type Superseded } from './bench-round';
import { BenchState } from './bench-state';

/** The bench: what is done on it. */
@Injectable()
export class BenchStore extends BenchState {
  private readonly drafts = inject(Drafts);

  /** Put a round on the bench. Fails with an ApiFailure when the server does not know it and nobody here does. */
  open(id: string): Observable<void> {
    this.roundId$.next(id);
    this.chosen.set(null);
    this.correction.set(null);
    this.fault.set('');
    this.chosenSetUp.set(null);
    this.typed.set(this.drafts.read(`reading:${id}`, z.string()) ?? '');
    this.besides.typed.set(this.drafts.read(`beside:${id}`, formSchema) ?? {});
    return this.rounds.open(id);
  }

  /** Who reads into this round elsewhere, and when it was heard; null as long as nobody does. */
  readonly elsewhere = signal<{ readonly by: string; readonly at: string } | null>(null);

  /** Hear what others write into a round that is on this bench. */
  follow(id: string): Subscription {
    this.elsewhere.set(null);
    return this.rounds.follow(id).subscribe((by) => this.elsewhere.set({ by, at: nowText() }));
  }

  type(text: string): void {
    this.typed.set(text);
    this.fault.set('');
    this.apart.set(null);
    this.asked.set([]);
    const id = this.round()?.id;
    if (id) this.drafts.keep(`reading:${id}`, text);
  }

  typeBeside(value: FormValue): void {
    if (dequal(value, this.besides.typed())) return;
    // A unit that is written out on leaving the field is no other figure: what was said of it still stands.
    const before = this.besides.said(this.settings.system());
    this.besides.typed.set(value);
    if (!dequal(before, this.besides.said(this.settings.system()))) this.fault.set('');
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

  /** What has been typed, as it is kept; what is felt has no figure of a dial: it stands beside. */
  private valueTyped(): StoredReading['value'] {
    return this.valueKind() === 'none' ? null : asRead(this.typed(), this.valueKind(), this.instrument(), this.settings.system());
  }

  /** Both readings of a place stand: what was typed is taken beside the first. */
  keepBoth(): void {
    this.take(true);
  }

  /** What was typed takes the place of the first reading: that one was misread. */
  replaceFirst(): void {
    const first = this.apart();
    if (!first) return;
    const typed = this.typed();
    this.correction.set({ reading: first, why: 'misread' });
    this.type(typed);
    this.take(true);
  }

  /** The last reading of the place in hand, where a new one is farther from it than two divisions: a slip, or something moved. */
  private apartFrom(value: StoredReading['value']): StoredReading | undefined {
    const [instrument, kind] = [this.instrument(), this.valueKind()];
    const last = this.current()?.readings.at(-1);
    if (!last || !instrument || this.correction() || kind === 'none' || kind === 'gap') return undefined;
    // A round that contradicts itself asks for a place to be read again: what comes then is the answer.
    if (this.solved().finding?.notes.some(({ code }) => code === 'misread')) return undefined;
    const [now, before] = [value, last.value].map((read) => readingValue(read, kind, instrument));
    return now.ok && before.ok && liesApart(now.value, before.value, instrument.graduation) ? last : undefined;
  }

  /** What has been typed as a reading of a place, in the place of one that is put right. */
  private readingTyped(keys: StoredReading['keys']) {
    const correction = this.correction();
    return {
      keys: this.besides.onto(keys, this.settings.system()),
      value: this.valueTyped(),
      set: correction?.reading.set ?? this.setUp(),
      supersedes: correction?.reading.id ?? null,
      why: correction?.why ?? null,
    };
  }

  /** Ask what becomes of two readings that lie apart; whether there is anything to ask. */
  private asksApart(value: StoredReading['value']): boolean {
    const first = this.apartFrom(value) ?? null;
    this.apart.set(first);
    return first !== null;
  }

  /** Take what has been typed at the current place. @param sure it stands, however far it is from what was read there. */
  take(sure = false): boolean {
    const round = this.round();
    const check = this.check();
    const correction = this.correction();
    const keys = correction?.reading.keys ?? this.current()?.keys;
    if (!round || !check || !keys) return false;
    const asked = this.askedBack(check);
    this.asked.set(asked ?? []);
    if (asked) return false;
    const reading = this.readingTyped(keys);
    const fault = this.faultOf(round, reading);
    if (fault) {
      this.fault.set(fault);
      return false;
    }
    if (!sure && this.asksApart(reading.value)) return false;
    this.write(round, reading);
    this.type('');
    this.typeBeside(this.besides.staying());
    this.fault.set('');
    this.correction.set(null);
    this.chosen.set(null);
    return true;
  }

  /**
   * Take what has been typed, and paint its call before anything else.
   *
   * @param paint brings what is on the screen up to date. @param painted is run once the call can be seen. @returns whether it was taken.
   */
  takeAndCall(paint: () => void, painted: () => void): boolean {
    if (!this.take()) return false;
    this.calling.set(true);
    // Before anything else that waits for the frame: what comes after it is no part of the call.
    afterFrame(() => {
      painted();
      this.calling.set(false);
    });
    paint();
    return true;
  }

  /** What a bare figure may be that can hardly be what was read. */
  private askedBack(check: CheckDefinition): readonly string[] | undefined {
    const kind = this.valueKind();
    if (kind !== 'size') return this.askedFigure(kind);
    const setup = this.setup();
    if (!check.turnedFrom || check.spokenOver?.(setup)) return undefined;
    const own = this.correction()?.reading.id;
    const [pad] = this.standing().filter(({ id, value }) => id !== own && value !== null);
    const read = pad && readingValue(pad.value, 'size', undefined);
    return askedSize(
      this.typed(),
      { like: read?.ok ? read.value / 1000 : undefined, from: check.turnedFrom(setup) },
      this.settings.system(),
    );
  }

  private askedFigure(kind: ValueKind): readonly string[] | undefined {
    const beyond = askedReading(this.typed(), kind, this.instrument());
    this.fitsDial.set(beyond === undefined);
    return beyond ?? this.askedTen(kind);
  }

  /** A bare figure ten times what the other places of its line read: with it, what it would be with its point one place on. */
  private askedTen(kind: ValueKind): readonly string[] | undefined {
    const [instrument, typed, here] = [this.instrument(), this.typed().trim(), this.correction()?.reading.keys ?? this.current()?.keys];
    if (!instrument || !here || kind !== 'indicator' || !/^[+\-−–]?\d+([.,]\d+)?$/.test(typed)) return undefined;
    const figured = readingValue(asRead(typed, kind, instrument, this.settings.system()), kind, instrument);
    const now = figured.ok ? figured.value / instrument.graduation : NaN;
    // Small on its dial it is never asked about: of hundreds of readings none has to be read for that.
    if (!(Math.abs(now) >= TEN_DIVISIONS)) return undefined;
    const [line, place, setUp, corrected] = [lineOf(here), keyOf(here), this.setUp(), this.correction()?.reading.id];
    const others = this.standing().filter(
      ({ keys, set, id }) => set === setUp && id !== corrected && lineOf(keys) === line && keyOf(keys) !== place,
    );
    const read = others.map((other) => this.deviationOf(other)).flatMap((value) => (value === null ? [] : [value / instrument.graduation]));
    if (!isTenTimes(read, now)) return undefined;
    const figure = Number(typed.replace(',', '.').replace(/[−–]/, '-'));
    return [figure, figure / 10].map((number) => `${Number(number.toFixed(3))} div`);
  }

  /** Take a reading that was typed elsewhere: in a table. */
  put(reading: Pick<ReadingWrite, 'keys' | 'value' | 'set'>): void {
    const round = this.round();
    if (round) this.write(round, { ...reading, supersedes: null, why: null });
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
    this.replan((check, about) => movePlace(check, about, slot, at), { at, why: 'place changed' });
  }

  /** One place more, half-way to the next one; its place is then typed or dragged. */
  addPlace(slot: BenchSlot): void {
    this.replan((check, about) => addPlace(check, about, slot));
  }

  /** One place fewer: what was read there is withdrawn. */
  dropPlace(slot: BenchSlot): void {
    this.replan((check, about) => dropPlace(check, about, slot), { withdrawn: true, why: 'place skipped' });
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
    return fault ? faultWords(round.check, fault, round.instrument) : '';
  }

  private write(round: StoredRound, reading: Pick<ReadingWrite, 'keys' | 'value' | 'set' | 'supersedes' | 'why'>): void {
    this.rounds.takeReading(round, { ...reading, id: newId(), by: this.settings.by(), at: nowText() });
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
