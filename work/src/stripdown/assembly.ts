import { readPart, type Part, type PartDetails, type PartKind } from '@isometra/contract';
import { fasteningWords, partCautions, shimWords, type LengthWords } from './partWords.js';

/** Something to tick before a part counts as fitted. Its key stays the same as long as the part does. */
export interface AssemblyCheck {
  readonly key: string;
  readonly text: string;
}

/** One part going back. */
export interface AssemblyStep {
  readonly part: Part;
  readonly details: PartDetails;
  readonly checks: readonly AssemblyCheck[];
  /** Shims whose corner nobody wrote down, by their place in the list of the part: asked before the part goes back. */
  readonly corners: readonly number[];
  readonly cautions: readonly string[];
  /** Why another part has to go on first, although it came off later or at the wrong time. */
  readonly first: string | undefined;
}

/** Parts that stand, in the order in which they came off. */
export const inOrder = (parts: readonly Part[]): readonly Part[] =>
  parts.filter(({ removed }) => !removed).sort((one, other) => one.place - other.place || one.number - other.number);

/** The number after the highest one that is given. */
export const freeNumber = (parts: readonly Pick<Part, 'number'>[]): number => Math.max(0, ...parts.map(({ number }) => number)) + 1;

/** Between two neighbours, or beyond the last one. */
export function placeBetween(before: number | undefined, after: number | undefined): number {
  if (after === undefined) return Math.floor((before ?? 0) + 1);
  return ((before ?? 0) + after) / 2;
}

/** What a shaft is carried by: nothing endless goes on once one of these holds it. */
const HOLDS: readonly (PartKind | undefined)[] = ['cap', 'shaft'];
/** What is felt by turning it. */
const TURNS: readonly (PartKind | undefined)[] = ['cap', 'shaft', 'bearing'];

const READY = {
  clean: 'Clean it, and feel its edges for burrs.',
  mend: 'Check that it has been mended.',
  make: 'Fit the new one that was made, not the old one.',
  order: 'Fit the new one that was ordered, not the old one.',
} as const;

/** Shims of a part: where each lies, or what to do where nobody knows. */
function shimChecks({ shims = [] }: PartDetails, length: LengthWords): AssemblyCheck[] {
  return shims.map((shim, i) => ({
    key: `shim ${i}`,
    text:
      shim.at === undefined
        ? `Lay the shim in, ${shimWords(shim, length)}. Its corner is not known: measure the alignment before you trust it.`
        : `Lay the shim in: ${shimWords(shim, length)}.`,
  }));
}

/** What its own record asks of a part. */
function ownChecks(details: PartDetails, length: LengthWords): AssemblyCheck[] {
  const { kind, condition, marks, thickEnd, seals, asFound, fastenings = [] } = details;
  const gib = thickEnd ? `Thick end ${thickEnd}.` : 'Find its thick end before you slide it in: nobody wrote down which way it points.';
  return [
    ...shimChecks(details, length),
    ...(marks ? [{ key: 'marks', text: `Turn it the way it was marked: ${marks}.` }] : []),
    ...(kind === 'gib' ? [{ key: 'thick end', text: gib }] : []),
    ...(seals ? [{ key: 'seals', text: `Fit the seals: ${seals}.` }] : []),
    ...fastenings.map((fastening, i) => ({ key: `fastening ${i}`, text: `${fasteningWords(fastening)}.` })),
    ...(asFound ? [{ key: 'as found', text: `Compare with what was found: ${asFound}.` }] : []),
    ...(condition && condition !== 'good' ? [{ key: 'ready', text: READY[condition] }] : []),
  ].sort((one, other) => Number(other.key === 'ready') - Number(one.key === 'ready'));
}

interface Read {
  readonly part: Part;
  readonly details: PartDetails;
}

/** Belts that are not on yet when something closes round the shaft. */
function beltsMissing({ part, details }: Read, belts: readonly Read[]): readonly Read[] {
  return HOLDS.includes(details.kind) ? belts.filter((belt) => belt.part.id !== part.id && !belt.part.fitted) : [];
}

const titled = ({ part, details }: Read): string => `part ${part.number}, ${details.name}`;

/** What must have been felt or put on before a part closes off the way to it. */
function betweenChecks(read: Read, belts: readonly Read[], since: readonly Read[]): AssemblyCheck[] {
  const { kind } = read.details;
  const endless =
    kind === 'cap' && belts.length === 0
      ? [{ key: 'belts', text: 'Check that every belt, chain and gear is on the shaft: none goes on after this cap.' }]
      : belts
          .filter(({ part }) => HOLDS.includes(kind) && part.id !== read.part.id)
          .map((belt) => ({
            key: `belt ${belt.part.number}`,
            text: `Check that the belt is on: ${titled(belt)}. It cannot go on after this.`,
          }));
  const turning = kind === 'cover' ? since.filter(({ details }) => TURNS.includes(details.kind)) : [];
  const found = turning.map(({ details }) => details.asFound).filter(Boolean);
  const felt = turning.length
    ? [
        {
          key: 'drag',
          text: `Turn the shaft by hand and feel the drag before this cover closes.${found.length ? ` As found: ${found.join('; ')}.` : ''}`,
        },
      ]
    : [];
  return [...endless, ...felt];
}

/** What was fitted since the last cover closed, in the order of assembly. */
function sinceCover(order: readonly Read[], at: number): readonly Read[] {
  const before = order.slice(0, at);
  return before.slice(before.findLastIndex(({ details }) => details.kind === 'cover') + 1);
}

/**
 * A strip-down played backwards: the last part that came off goes back first. Each step has what must be seen to before the part counts
 * as fitted, with the checks that belong between two parts: belts before what closes round their shaft, the drag before a cover closes.
 *
 * @param parts of one strip-down, in any order; removed ones are left out. @param length words for a length in mm.
 */
export function assemblyOf(parts: readonly Part[], length: LengthWords): readonly AssemblyStep[] {
  const order = [...inOrder(parts)].reverse().flatMap((part): Read[] => {
    const details = readPart(part);
    return details ? [{ part, details }] : [];
  });
  const belts = order.filter(({ details }) => details.kind === 'belt');
  return order.map((read, at) => {
    const missing = beltsMissing(read, belts);
    return {
      ...read,
      checks: [...betweenChecks(read, belts, sinceCover(order, at)), ...ownChecks(read.details, length)],
      corners: (read.details.shims ?? []).flatMap((shim, i) => (shim.at === undefined ? [i] : [])),
      cautions: partCautions(read.details, 'on'),
      first: missing.length
        ? `Fit this first: ${missing.map(titled).join('; ')}. A belt cannot go on after this. If it can be joined in place, change it to “a part”.`
        : undefined,
    };
  });
}

/** The step that comes next: the first part, in the order of assembly, that is not fitted; undefined where all are. */
export const nextStep = (steps: readonly AssemblyStep[]): AssemblyStep | undefined => steps.find(({ part }) => !part.fitted);
