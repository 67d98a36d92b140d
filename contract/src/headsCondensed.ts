import * as z from 'zod';
import { roundHeadSchema, type RoundHead } from './round.js';

/** What no two rounds share: id, number, when, last reading, version, and the figures of its quantities. */
const ownSchema = z.tuple([z.int().min(0), z.string(), z.int(), z.int(), z.int(), z.int(), z.array(z.number().nullable())]);

/** Very many rounds in short, on their way: what many have in common is sent once. */
const condensedSchema = z.object({
  format: z.literal('isometra-heads/1'),
  shared: z.array(z.record(z.string(), z.unknown())),
  /** Which of the shared parts; id; number; ms since 1970; last; version; value and expanded of each quantity, in the order of its shared part. */
  rows: z.array(ownSchema),
});
export type CondensedHeads = z.infer<typeof condensedSchema>;

/** Figures with more digits than any reading has only take room. */
const short = (value: number): number => Number(value.toPrecision(7));

type Finding = NonNullable<RoundHead['finding']>;
type Figured = { readonly quantities: Readonly<Record<string, Finding['quantities'][string]>> };

const figuresOf = ({ quantities }: Figured): (number | null)[] =>
  Object.values(quantities).flatMap(({ value, expanded }) => [short(value), expanded === null ? null : short(expanded)]);

const blanked = (finding: Finding): Finding => ({
  ...finding,
  quantities: Object.fromEntries(Object.entries(finding.quantities).map(([name, told]) => [name, { ...told, value: 0, expanded: null }])),
});

/** What a finding shares with others, as text, and its figures: worked out once for each that is kept in memory. */
const told = new WeakMap<Finding, { readonly text: string; readonly figures: readonly (number | null)[] }>();
function toldBy(finding: Finding): { readonly text: string; readonly figures: readonly (number | null)[] } {
  const known = told.get(finding) ?? { text: JSON.stringify(blanked(finding)), figures: figuresOf(finding) };
  told.set(finding, known);
  return known;
}

/** Rounds in short as they are sent. Figures keep seven digits; all else comes back as it was. */
export function condense(heads: readonly RoundHead[]): CondensedHeads {
  const known = new Map<string, number>();
  const shared: CondensedHeads['shared'] = [];
  const rows = heads.map(({ id, number, at, last, version, finding, ...rest }): CondensedHeads['rows'][number] => {
    const own = finding && toldBy(finding);
    const text = `${JSON.stringify(rest)}${own?.text ?? ''}`;
    const index = known.get(text) ?? shared.push({ ...rest, finding: finding && blanked(finding) }) - 1;
    known.set(text, index);
    return [index, id, number, Date.parse(at), last, version, own ? [...own.figures] : []];
  });
  return { format: 'isometra-heads/1', shared, rows };
}

/** Rounds in short as they were. @throws ZodError where what they share is no part of a round. */
export function expand({ shared, rows }: CondensedHeads): RoundHead[] {
  // Each shared part is looked at once, whole: the rounds differ in figures alone.
  const parts = shared.map((part) =>
    roundHeadSchema.parse({ ...part, id: '', number: 1, at: new Date(0).toISOString(), last: 0, version: 1 }),
  );
  return rows.map(([index, id, number, at, last, version, figures]): RoundHead => {
    const part = parts[index];
    const own = { ...part, id, number, at: new Date(at).toISOString(), last, version };
    return part.finding ? { ...own, finding: { ...part.finding, quantities: withFigures(part.finding, figures) } } : own;
  });
}

const withFigures = ({ quantities }: Finding, figures: readonly (number | null)[]): Finding['quantities'] =>
  Object.fromEntries(
    Object.entries(quantities).map(([name, told], i) => [
      name,
      { ...told, value: figures[2 * i] ?? 0, expanded: figures[2 * i + 1] ?? null },
    ]),
  );

/** Rounds in short, read as they come in. */
export const condensedHeadsSchema = condensedSchema.transform((condensed, context): RoundHead[] => {
  const lost = condensed.rows.some(([index]) => index >= condensed.shared.length);
  const told = lost ? undefined : tried(condensed);
  if (told) return told;
  context.addIssue({ code: 'custom', message: 'are no rounds in short' });
  return z.NEVER;
});

function tried(condensed: CondensedHeads): RoundHead[] | undefined {
  try {
    return expand(condensed);
  } catch {
    return undefined;
  }
}
