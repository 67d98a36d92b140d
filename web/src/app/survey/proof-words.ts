import { parseQuantity, type PadSizes, type ProofCut } from '@isometra/core';
import { bothUnits, isZero, type Shown } from '../ui/say';

/** A pad of a proof cut: which cut, and at which end of the machine it stood. */
export type Pad = `${'first' | 'turned'}${'Head' | 'Tail'}`;

export const padsOf = (cut: 'first' | 'turned'): { readonly key: Pad; readonly end: string }[] => [
  { key: `${cut}Head`, end: 'head end' },
  { key: `${cut}Tail`, end: 'tail end' },
];

const NAMES: Readonly<Record<Pad, string>> = {
  firstHead: 'First cut, head end',
  firstTail: 'First cut, tail end',
  turnedHead: 'Bar turned end for end, head end',
  turnedTail: 'Bar turned end for end, tail end',
};

/** mm: pads of one cut that differ by more were not cut in one setting of the tool. */
const MOST_APART = 1;

type Read =
  | { readonly ok: true; readonly sizes: { readonly first: PadSizes; readonly turned: PadSizes } }
  | { readonly ok: false; readonly message: string };

/** The four sizes of a proof cut as typed; or what is missing or wrong, by the name of its field. @param inUnit gives a bare number its unit. @param example a size that is taken. */
export function readPads(typed: Partial<Record<Pad, string>>, inUnit: (text: string) => string, example: string): Read {
  const mm: Partial<Record<Pad, number>> = {};
  for (const pad of Object.keys(NAMES) as Pad[]) {
    const text = typed[pad]?.trim() ?? '';
    if (!text) return { ok: false, message: `${NAMES[pad]}: is missing. Measure the pad and give its diameter. Example: ${example}` };
    const parsed = parseQuantity(inUnit(text), 'length');
    if (!parsed.ok) return { ok: false, message: `${NAMES[pad]}: ${parsed.message}. Example: ${example}` };
    mm[pad] = parsed.value;
  }
  const { firstHead: a = 0, firstTail: b = 0, turnedHead: c = 0, turnedTail: d = 0 } = mm;
  for (const [cut, one, other] of [
    ['First cut', a, b],
    ['Bar turned end for end', c, d],
  ] as const)
    if (Math.abs(one - other) > MOST_APART)
      return {
        ok: false,
        message: `${cut}: the two pads differ by more than a millimetre. Both are cut in one setting of the tool: check the sizes and their units.`,
      };
  return { ok: true, sizes: { first: { head: a, tail: b }, turned: { head: c, tail: d } } };
}

const CALLED = { in: 'In', out: 'Out', unsure: 'Too close to call' } as const;

/** What a proof cut says: what is the machine, what is the bar, and what to do about it. */
export function proofWords({ machine, bar, expanded, verdict, barTells }: ProofCut, shown: Shown): string {
  const size = (um: number) => bothUnits(Math.abs(um), 'deviation', shown, 1).large;
  const end = machine > 0 ? 'tail' : 'head';
  const own = isZero(size(machine))
    ? 'The machine cuts both ends alike.'
    : `The machine cuts ${size(machine)} bigger at its ${end} end, both ways round (± ${size(expanded)} on diameter).`;
  const what = verdict === 'out' ? ' Read the tailstock again and move it before the next cut.' : '';
  const rest = barTells ? ` ${size(bar)} more goes with the bar: its own centres or its bending. Leave the machine out of that.` : '';
  return `${CALLED[verdict]}. ${own}${what}${rest}`;
}
