import type { CheckDefinition, Note } from '../checks/define.js';
import { FILE_SIZES, sentence, type Said, type SizeWriter } from '../units/said.js';
import { readsOf } from '../checks/define.js';
import type { Fit, Shape } from '../checks/fits.js';
import type { Instrument } from '../instruments/instrument.js';
import { dialDivisions } from '../instruments/reading.js';
import type { Slot, Values } from '../instruments/slots.js';
import { slotScatter, type Repeatability } from './budget.js';
import { coherenceOf, type Coherence, type Suspect } from './coherence.js';
import { placeOf, placeWords } from './placeWords.js';

/** What a wrong figure looks like beside the right one. */
export type Guess = 'turn' | 'sign' | 'decimal' | 'exchanged' | 'none';

/** How much the uncertainty of a quantity grows because its readings do not follow their model. */
export interface Widening {
  readonly factor: number;
  readonly degreesOfFreedom: number;
}

/** What a round says against itself. */
export interface Contradictions {
  readonly notes: readonly Note<Said>[];
  /** One reading is taken for misread: nothing is judged until its place has been read again. */
  readonly misread: boolean;
  readonly widening: Readonly<Record<string, Widening>>;
}

/** One set-up of a round with the models it must obey. */
export interface FittedSet {
  readonly slots: readonly Slot[];
  readonly fits?: readonly Fit[];
}

export interface ContradictionInput {
  readonly check: CheckDefinition;
  readonly setup: Values;
  readonly sets: readonly FittedSet[];
  readonly instrument: Instrument;
  readonly pooled: Repeatability;
  /** Places that were read again after another place and said the same: what stands out there is shape. */
  readonly confirmed: ReadonlySet<Slot>;
}

/**
 * Look for readings that the rest of the round contradicts. A single reading that explains the contradiction is named as misread;
 * where none does, or several would, the shape is taken as real and the uncertainty of what depends on it grows.
 *
 * Source: docs/methods/uncertainty.md, "A round that contradicts itself".
 */
export function contradictionsIn(input: ContradictionInput): Contradictions {
  const { sets, instrument, pooled } = input;
  const notes: Note<Said>[] = [];
  const widening: Record<string, Widening> = {};
  let misread = false;
  for (const { slots, fits = [] } of sets) {
    const values = slots.map((slot) => slot.value);
    const uncertainties = slots.map((slot) => {
      const { resolution, repeatability } = slotScatter(slot, instrument, pooled);
      return Math.hypot(resolution, repeatability, instrument.accuracy / Math.sqrt(3));
    });
    const uncertainty = (i: number): number => uncertainties[i];
    for (const fit of fits) {
      const found = coherenceOf(fit, values, uncertainty);
      if (!found.contradicts) continue;
      const open = openSuspects(found, slots, input.confirmed);
      if (open.length === 1) {
        misread = true;
        notes.push(misreadNote(input, slots, open[0], found));
        continue;
      }
      for (const name of fit.widens)
        if (!(widening[name]?.factor >= found.factor)) widening[name] = { factor: found.factor, degreesOfFreedom: found.degreesOfFreedom };
      if (!fit.measured) notes.push(shapeNote(input, slots, open, found));
    }
  }
  return { notes: withoutDoubles(notes), misread, widening };
}

/** A suspect with the slots of it that were not confirmed by reading them again. */
interface OpenSuspect extends Suspect {
  readonly slots: readonly { readonly slot: number; readonly weight: number }[];
}

const openSuspects = ({ fit, suspects }: Coherence, slots: readonly Slot[], confirmed: ReadonlySet<Slot>): OpenSuspect[] =>
  suspects.flatMap((suspect) => {
    const own = fit.observations[suspect.observation].form
      .filter(([slot]) => !confirmed.has(slots[slot]))
      .map(([slot, weight]) => ({ slot, weight }));
    return own.length ? [{ ...suspect, slots: own }] : [];
  });

/** Two set-ups may say the same of one place. */
function withoutDoubles(notes: readonly Note<Said>[]): Note<Said>[] {
  const texts = notes.map(({ text }) => sentence(text, FILE_SIZES));
  return notes.filter((note, i) => texts.findIndex((text, k) => text === texts[i] && notes[k].code === note.code) === i);
}

/** A reading in the unit in which it was taken: divisions of a dial or a level, mm of a size. */
function asRead(
  value: number,
  kind: ReturnType<typeof readsOf>,
  instrument: Instrument,
): { readonly value: number; readonly unit: string } {
  if (kind === 'size' || kind === 'gap') return { value: value / 1000, unit: 'mm' };
  if (kind === 'level') return { value: value / instrument.graduation, unit: 'div' };
  return { value: dialDivisions(value, instrument), unit: 'div' };
}

function misreadNote(
  { check, setup, instrument }: ContradictionInput,
  slots: readonly Slot[],
  suspect: OpenSuspect,
  { fit }: Coherence,
): Note<Said> {
  const tried = suspect.slots.map(({ slot, weight }) => {
    const { keys, value } = slots[slot];
    const kind = readsOf(check, setup, keys);
    const [shown, wanted] = [asRead(value, kind, instrument), asRead(value + suspect.change / weight, kind, instrument)];
    const room = Math.abs(asRead((3 * suspect.u) / weight, kind, instrument).value);
    const scale = shown.unit === 'div' ? instrument.graduation : 1;
    return { keys, shown, wanted, guess: guessOf(shown.value, wanted.value, room, { range: instrument.range, scale }) };
  });
  const told = tried.find(({ guess }) => guess !== 'none') ?? tried[0];
  const figure = ({ value, unit }: { readonly value: number; readonly unit: string }, size: SizeWriter) =>
    unit === 'mm' ? size(value, 'size') : `${Number(value.toFixed(1))} ${unit}`;
  const several = tried.length > 1 ? ' Read everything at this place again.' : ' Read this place again.';
  return {
    code: 'misread',
    severity: 'serious',
    text: (size) =>
      `The reading at ${placeWords(told.keys, check.slotKeys, size)} contradicts the others: it reads ${figure(told.shown, size)} and would have to read about ${figure(told.wanted, size)}. ${GUESSES[told.guess]}${several} Until then there is no verdict and nothing to move.`,
    place: placeOf(told.keys, check.slotKeys),
    value: told.wanted.value,
    unit: told.wanted.unit,
    guess: told.guess,
    shape: fit.shape,
  };
}

const GUESSES: Readonly<Record<Guess, string>> = {
  turn: 'A turn of the dial?',
  sign: 'A wrong sign?',
  decimal: 'A decimal point in the wrong place?',
  exchanged: 'Two digits exchanged?',
  none: 'A typing mistake, a knock, or a chip under the stylus?',
};

/** What is asked before a reading is looked for where the dial can be zeroed between two pairs of places. */
const ZEROED_AGAIN = ' Was the dial zeroed again on the way? Then say so in the set-up, under “Read at”.';

const SHAPES: Readonly<Record<Shape, { readonly code: string; readonly text: string }>> = {
  line: { code: 'not-straight', text: 'The readings do not lie on a straight line' },
  plane: { code: 'not-straight', text: 'The readings do not lie in one plane' },
  circle: { code: 'out-of-round', text: 'The readings do not make a circle' },
  'level-zero': { code: 'not-straight', text: 'The level shows a different zero at different places' },
  'same-runout': { code: 'not-straight', text: 'The runout is not the same from the side and from the top' },
};

function shapeNote(
  { check, instrument }: ContradictionInput,
  slots: readonly Slot[],
  open: readonly OpenSuspect[],
  { fit, factor }: Coherence,
): Note<Said> {
  const { code, text } = SHAPES[fit.shape];
  const ask = fit.zeroed ? ZEROED_AGAIN : '';
  const places = open.map(({ slots: [first] }) => slots[first.slot].keys);
  const unit = instrument.kind === 'level' ? ' of the level' : '';
  return {
    code,
    severity: 'warning',
    text: places.length
      ? (size) =>
          `${text}${unit}. One of these may be misread, and the round cannot tell which: ${places.map((keys) => placeWords(keys, check.slotKeys, size)).join('; ')}. Read them again, or add another place.${ask}`
      : `${text}${unit}: the shape is taken as real, and the ± grows ${factor >= 10 ? factor.toFixed(0) : factor.toFixed(1)} times.`,
    shape: fit.shape,
    factor,
    places: places.map((keys) => placeOf(keys, check.slotKeys)),
  };
}

interface GuessFacts {
  /** Divisions from one end of the dial's travel to the other. */
  readonly range?: number;
  /** What one division is in the unit in which the figure may have been typed, µm: digits are exchanged in what was typed. */
  readonly scale: number;
}

/** µm for one of each unit that a figure may have been typed in. */
const TYPED_IN = [1, 25.4, 2.54];

/**
 * Which mistake turns the right reading into the one that was entered.
 *
 * @param shown what was entered and @param wanted what it would have to be, in one unit; @param room by how much they may miss.
 * @example guessOf(102, 2, 1, { range: 100, scale: 2 }) // 'turn'
 */
export function guessOf(shown: number, wanted: number, room: number, { range, scale }: GuessFacts): Guess {
  const near = (value: number, tolerance = room): boolean => Math.abs(value - wanted) <= tolerance;
  const turns = range ? Math.round((shown - wanted) / range) : 0;
  const turned = range && turns !== 0 ? shown - turns * range : undefined;
  if (turned !== undefined && near(turned)) return 'turn';
  if (near(-shown)) return 'sign';
  if ([10, 100, 0.1, 0.01].some((factor) => near(shown * factor))) return 'decimal';
  if (scale > 0 && [scale, ...TYPED_IN].some((unit) => exchanged((shown * scale) / unit).some((value) => near((value * unit) / scale))))
    return 'exchanged';
  return turned !== undefined && range && near(turned, 0.1 * Math.abs(turns) * range) ? 'turn' : 'none';
}

/** A figure with any two of its digits exchanged. */
function exchanged(figure: number): number[] {
  const text = String(Number(figure.toPrecision(7)));
  if (/e/i.test(text)) return [];
  const places = [...text].flatMap((letter, i) => (/\d/.test(letter) ? [i] : []));
  return places.flatMap((i, k) =>
    places.slice(k + 1).flatMap((j) => {
      if (text[i] === text[j]) return [];
      const letters = [...text];
      [letters[i], letters[j]] = [letters[j], letters[i]];
      return [Number(letters.join(''))];
    }),
  );
}
