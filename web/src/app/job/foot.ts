import { footSchema, stockSchema, suits, type Foot, type Part } from '@isometra/core';
import type { Surface } from '@isometra/contract';

/** A foot that a column leans on. */
export interface FootUnder {
  readonly name: string;
  readonly foot: Foot;
  /** Its length the way the lean goes, mm. */
  readonly length: number;
  /** Height of the wedge over that length, µm. */
  readonly wedge: number;
}

/** The foot that a lean stands on; undefined for another part, or where the card does not tell of it. @param amount µm/m. */
export function footUnder(
  part: Part | undefined,
  card: Readonly<Record<string, unknown>> | undefined,
  quantity: string,
  amount: number,
): FootUnder | undefined {
  const foot = part?.foot ? footSchema.safeParse(card?.['foot']).data : undefined;
  if (!part || !foot) return undefined;
  const length = quantity === 'leanX' ? foot.across : foot.along;
  return { name: part.name, foot, length, wedge: (Math.abs(amount) * length) / 1000 };
}

/** The thinnest leaf of a drawer, µm; undefined where there is none. */
function thinnest(stock: unknown): number | undefined {
  const leaves = (stockSchema.safeParse(stock).data ?? []).map(({ thickness }) => thickness);
  return leaves.length ? Math.min(...leaves) : undefined;
}

/** Which means suits a wedge that is too small for the one that was chosen, and what it costs; '' where that one suits. */
export function suitsSentence(kind: string, wedge: number, stock: unknown, size: (um: number) => string): string {
  const told = suits(kind, wedge, { leaf: thinnest(stock) });
  if (!told) return '';
  const { too, least, passes, minutes } = told;
  const much = too === 'grind' ? `a grind takes ${size(least)} at least` : `the thinnest shim is ${size(least)}`;
  const instead = passes
    ? `Scraping suits: ${passes === 1 ? 'one pass' : `${passes} passes`} over the high side, about ${minutes} min with blue, besides opening the joint.`
    : 'It is less than half a pass of the scraper too: leave it, unless the joint is open anyway.';
  return `Over the foot it is ${size(wedge)}, and ${much}: that is the wrong means. ${instead}`;
}

/** The side of a foot from which metal comes off, in the words of its joint, and as the face lies seen from the operator. */
const HIGH_SIDES = [
  ['left', 'left'],
  ['right', 'right'],
  ['front', 'near'],
  ['rear', 'far'],
] as const;

/** The way to the scraping desk of a foot. */
export interface FootDesk {
  readonly link: readonly string[];
  readonly params: Readonly<Record<string, string>>;
}

/** The desk of the face under a column; a new one with its size, its wedge and what it is scraped true by. Null where no side is told. */
export function deskOfFoot(
  { name, foot, length, wedge }: FootUnder,
  to: {
    readonly machineId: string;
    readonly aim: string;
    /** The side that comes down: "the left side". */
    readonly high: string | undefined;
    readonly faces: readonly Pick<Surface, 'id' | 'name' | 'putAway'>[];
  },
): FootDesk | null {
  const called = `Base under the ${name}`;
  const base = ['/machines', to.machineId, 'scraping'];
  const there = to.faces.find((face) => face.name === called && !face.putAway);
  if (there) return { link: [...base, there.id], params: {} };
  const side = HIGH_SIDES.find(([word]) => to.high?.includes(word))?.[1];
  if (!side || wedge === 0) return null;
  return {
    link: [...base, 'new'],
    params: {
      ...{ name: called, part: 'column', width: `${foot.across} mm`, height: `${foot.along} mm` },
      ...{ wedge: wedge.toFixed(1), high: side, aim: to.aim, lever: String(Number((1000 / length).toPrecision(3))) },
    },
  };
}
