import { dialDivisions, readingValue, sentence, type ValueKind } from '@isometra/core';
import type { StoredReading } from '@isometra/contract';
import type * as z from 'zod';
import { isTenTimes, liesApart, lineOf } from '../judging/tenTimes.js';
import { placeOf } from '../notebook/keyOf.js';
import { faultWords, keyLabel, readingFaults } from '../sheets/door.js';
import { readingTold } from '../sheets/sheet.js';
import type { BenchSlot } from '../sheets/slots.js';
import { besideAt, infoOf, isFelt, keysOf, wordsOf, type Key, type Keys, type ReadingIn, type ReadingsAbout } from './readingPlaces.js';
import type { InRow } from './rows.js';

/** What a place along a machine lies apart from the next one at least, mm or degrees. */
const SAME_PLACE = 0.02;

const agrees = (one: Key | undefined, other: Key): boolean =>
  typeof one === 'number' && typeof other === 'number' ? Math.abs(one - other) < SAME_PLACE : one === other;
const fits = (keys: Keys, told: Keys): boolean => Object.entries(told).every(([key, value]) => agrees(keys[key], value));

/** A table on its way into a round, row by row: what was laid where so far. */
export class Laying {
  private readonly taken = new Set<number>();
  private readonly matched = new Set<string>();
  /** The place of the last row that was laid, and what it read. */
  private last: { readonly place: string; readonly value: number } | null = null;
  private readonly read: { readonly line: string; readonly place: string; readonly divisions: number }[] = [];
  private readonly firstPlane: Key | undefined;

  constructor(private readonly about: ReadingsAbout) {
    this.firstPlane = about.slots.find(({ readings }) => readings.length > 0)?.keys['plane'] ?? about.slots[0]?.keys['plane'];
  }

  /**
   * What a row becomes.
   *
   * @param told what its columns say of its place; none: it is the place with this `index`. @param beside what they say beside the
   *   reading. @param text its reading; undefined where no cell tells one.
   */
  lay(number: number, told: Keys, beside: Readonly<Record<string, string>>, text: string | undefined, index: number): InRow<ReadingIn> {
    const { check } = this.about;
    const place = this.placeFor(told, index);
    const says = [text, ...Object.values(beside)].filter(Boolean).join(' · ');
    if (typeof place === 'string') return { number, what: this.words(told), says, state: 'faulty', reason: place };
    const row = { number, what: this.called(place.keys, place.slot), says };
    const asked = besideAt(check, place.keys).map(({ key }) => key);
    const idle = Object.keys(beside).find((key) => !asked.includes(key));
    if (idle !== undefined) return { ...row, state: 'faulty', reason: `${keyLabel(check, idle)} is not asked at this place` };
    const at = { ...place, keys: { ...place.keys, ...beside } };
    if (isFelt(check, place.keys)) return this.layFelt(row, at, text);
    return text === undefined ? { ...row, state: 'faulty', reason: 'has no reading' } : this.layRead(row, at, text);
  }

  /** A row whose place is felt: leaves or a hand tell it, and no scale. */
  private layFelt(row: Pick<InRow<ReadingIn>, 'number' | 'what' | 'says'>, place: Place, text: string | undefined): InRow<ReadingIn> {
    const { check, setUp } = this.about;
    if (text !== undefined) return { ...row, state: 'faulty', reason: 'has a reading, and this place is felt' };
    const { length } = besideAt(check, place.keys).filter(({ key, instead }) => instead && place.keys[key] !== undefined);
    if (length === 0) return { ...row, state: 'faulty', reason: 'has no reading' };
    if (this.feltAlready(place.keys)) return { ...row, state: 'same' };
    const fault = this.faultOf(place, null, 0, 'none');
    if (fault) return { ...row, state: 'faulty', reason: fault };
    this.remember(place, NaN, 'none');
    return { ...row, state: 'new', value: { keys: place.keys, value: null, set: setUp } };
  }

  /** A row whose place is read off a scale. */
  private layRead(row: Pick<InRow<ReadingIn>, 'number' | 'what' | 'says'>, place: Place, text: string): InRow<ReadingIn> {
    const kind = this.about.kindOf(place.keys);
    const parsed = readingValue(text, kind, this.about.instrument);
    if (!parsed.ok) return { ...row, state: 'faulty', reason: `The reading ${parsed.message}. Example: ${parsed.example}` };
    if (this.stands(place.keys, parsed.value)) return { ...row, state: 'same' };
    const fault = this.faultOf(place, text, parsed.value, kind);
    if (fault) return { ...row, state: 'faulty', reason: fault };
    const doubt = this.doubtOf(place.keys, parsed.value, kind);
    this.remember(place, parsed.value, kind);
    return {
      ...{ ...row, state: 'new', value: { keys: place.keys, value: text, set: this.about.setUp } },
      ...(doubt && { doubt: true, reason: doubt }),
    };
  }

  /** A row whose reading cannot be taken. */
  unread(number: number, told: Keys, says: string, index: number, reason: string): InRow<ReadingIn> {
    const place = this.placeFor(told, index);
    const what = typeof place === 'string' ? this.words(told) : this.called(place.keys, place.slot);
    return { number, what, says, state: 'faulty', reason };
  }

  private words(told: Keys): string {
    return Object.entries(told)
      .map(([key, value]) => this.keyWords(key, value))
      .join(', ');
  }

  private keyWords(key: string, value: Key): string {
    const dimension = infoOf(this.about.check, key)?.dimension;
    if (typeof value === 'number') return dimension === 'length' ? this.about.size(value, 'length') : String(value);
    return infoOf(this.about.check, key)?.choices?.find((choice) => choice.value === value)?.label ?? wordsOf(value);
  }

  private called(keys: Keys, slot?: BenchSlot): string {
    return slot ? sentence(slot.label, this.about.size) : this.words(keys);
  }

  private open = (slot: BenchSlot): boolean => !slot.done && !this.taken.has(slot.index);

  /** Where a row belongs: where its columns say, or where it stands in the order. A text: why nowhere. */
  private placeFor(told: Keys, index: number): Place | string {
    if (Object.keys(told).length) return this.named(told);
    const slot = this.about.slots[index];
    return slot ? { keys: slot.keys, slot } : 'the round has no more places';
  }

  private named(told: Keys): Place | string {
    const { slots, check } = this.about;
    const found = slots.filter(({ keys }) => fits(keys, told));
    const names = new Set(found.map(({ keys }) => placeOf(check, keys)));
    if (names.size > 1) return `${names.size} places of the round are ${this.words(told)}: ${this.missing(told)}`;
    if (found.length === 0) return this.stray(told);
    const [name] = names;
    const again = this.last?.place === name;
    return { keys: found[0].keys, slot: (again ? undefined : found.find(this.open)) ?? found[0] };
  }

  private missing(told: Keys): string {
    const labels = keysOf(this.about)
      .filter((key) => !(key in told))
      .map((key) => keyLabel(this.about.check, key).toLowerCase());
    return `say which column is "${labels.join('", "')}"`;
  }

  private stray(told: Keys): Place | string {
    const at = told['at'];
    const { slots, check, size } = this.about;
    const others = slots.filter(({ keys }) => fits(keys, Object.fromEntries(Object.entries(told).filter(([key]) => key !== 'at'))));
    const model = others.find(({ keys }) => typeof keys['at'] === 'number');
    if (this.about.ownPlaces && typeof at === 'number' && model) {
      const distinct = new Set(others.map(({ keys }) => placeOf(check, { ...keys, at })));
      if (distinct.size === 1) return { keys: { ...model.keys, at } };
      return `${distinct.size} kinds of places are ${this.words(told)}: ${this.missing(told)}`;
    }
    const near = others.map(({ keys }) => keys['at']).filter((place): place is number => typeof place === 'number');
    if (typeof at !== 'number' || near.length === 0) return `no place of the round is ${this.words(told)}`;
    const nearest = near.reduce((best, place) => (Math.abs(place - at) < Math.abs(best - at) ? place : best));
    return `no place of the round is at ${size(at, 'length')}; the nearest is at ${size(nearest, 'length')}`;
  }

  /** Whether the round has this very reading already; each one stands for one row. */
  private stands(keys: Keys, value: number): boolean {
    const kind = this.about.kindOf(keys);
    return this.matches(keys, (reading) => {
      const parsed = readingValue(reading.value, kind, this.about.instrument);
      return parsed.ok && Math.abs(parsed.value - value) < 1e-9;
    });
  }

  /** Whether this place was felt so already. */
  private feltAlready(keys: Keys): boolean {
    const { check } = this.about;
    const said = (of: Keys, key: string): unknown => (check.reading.shape[key] as z.ZodType).safeParse(of[key]).data;
    return this.matches(keys, (reading) => besideAt(check, keys).every(({ key }) => said(reading.keys, key) === said(keys, key)));
  }

  private matches(keys: Keys, same: (reading: StoredReading) => boolean): boolean {
    const name = placeOf(this.about.check, keys);
    const readings = this.about.slots.filter((slot) => placeOf(this.about.check, slot.keys) === name).flatMap((slot) => slot.readings);
    const known = readings.find((reading) => !this.matched.has(reading.id) && same(reading));
    if (known) this.matched.add(known.id);
    return known !== undefined;
  }

  private faultOf({ keys, slot }: Place, text: string | null, value: number, kind: ValueKind): string | undefined {
    const { check, round, instrument, setUp } = this.about;
    const repeat = this.last?.place === placeOf(check, keys);
    if (slot && !this.open(slot) && !repeat)
      return slot.done
        ? `was read already: ${slot.readings.map((reading) => readingTold(check.id, reading)).join(', ')}. Put it right on the bench`
        : 'stands in the table already, with other places between';
    if (kind === 'indicator' && instrument?.range && Math.abs(dialDivisions(value, instrument)) > instrument.range) {
      const travel = this.about.size(instrument.range * instrument.graduation, 'deviation');
      return `${text ?? ''} is more than the dial can travel: ${travel} from end to end. Which unit is the column in?`;
    }
    const [fault] = readingFaults(round, { keys, value: text, set: setUp, supersedes: null });
    return fault && faultWords(round.check, fault, round.instrument);
  }

  private divisions(value: number): number {
    return this.about.instrument ? value / this.about.instrument.graduation : NaN;
  }

  private doubtOf(keys: Keys, value: number, kind: ValueKind): string | undefined {
    const { check, instrument } = this.about;
    if (kind === 'indicator' && this.firstPlane !== undefined && keys['plane'] !== this.firstPlane)
      return 'The dial is set over for this direction. Its needle counts the same way there as in the first one';
    const place = placeOf(check, keys);
    if (instrument && this.last?.place === place && liesApart(this.last.value, value, instrument.graduation))
      return 'differs from the row before, which is of the same place, by more than two divisions. Both stand';
    const others = this.read.filter((one) => one.line === lineOf(keys) && one.place !== place).map((one) => one.divisions);
    if (instrument && kind === 'indicator' && isTenTimes(others, this.divisions(value)))
      return 'is about ten times what the other places of its line read. It is as it stands';
    return undefined;
  }

  private remember({ keys, slot }: Place, value: number, kind: ValueKind): void {
    const place = placeOf(this.about.check, keys);
    if (slot) this.taken.add(slot.index);
    this.last = { place, value };
    if (kind === 'indicator') this.read.push({ line: lineOf(keys), place, divisions: this.divisions(value) });
  }
}

interface Place {
  readonly keys: Keys;
  readonly slot?: BenchSlot;
}
