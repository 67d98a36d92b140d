import type { Words } from './define.js';

/** Whoever stands at the machine: files name them, a screen speaks to them. */
export interface Person {
  /** "the operator" or "you". */
  readonly who: string;
  /** "operator’s" or "your". */
  readonly whose: string;
  /** "the operator’s side" or "your side". */
  readonly side: string;
  /** The end of a part that is nearest: "its operator’s end" or "the end near you". */
  readonly nearEnd: string;
}

const OPERATOR: Person = { who: 'the operator', whose: 'operator’s', side: 'the operator’s side', nearEnd: 'its operator’s end' };
const YOU: Person = { who: 'you', whose: 'your', side: 'your side', nearEnd: 'the end near you' };

const DIRECTIONS = ['plus', 'minus', 'movePlus', 'moveMinus'] as const;
const YOURS = new Map<string, string>();

/**
 * Direction words that name whoever stands at the machine. They are the words of files; `toYou` has the same ones for a screen.
 *
 * @param of the words for a person; written once for both.
 */
export function inBothPersons(of: (person: Person) => Words): Words {
  const [files, screen] = [of(OPERATOR), of(YOU)];
  for (const name of DIRECTIONS) YOURS.set(files[name], screen[name]);
  return files;
}

/** A direction as a screen says it: "toward you". @param direction as a finding or a move has it. */
export const toYou = (direction: string): string => YOURS.get(direction) ?? direction;

/** A place where the needle is watched, as a screen says it. */
export interface Spot {
  readonly place: string;
  /** The dial is set to zero there before anything moves. */
  readonly zeroed: boolean;
}

const SPOTS = new Map<string, Spot>();

/** Places are written with the plain apostrophe in files. */
const FILES: Person = { ...OPERATOR, whose: "operator's", side: "the operator's side" };

/** A place where the needle is watched, in the words of files: `spotOf` has the same one for a screen. */
export function spot(of: (person: Person) => string, { zeroed = false } = {}): string {
  const where = `${of(FILES)}${zeroed ? ', zeroed' : ''}`;
  SPOTS.set(where, { place: of(YOU), zeroed });
  return where;
}

/** The place of a needle in words for a screen. @param where as a finding has it; nothing where no dial sees it. */
export const spotOf = (where: string): Spot => SPOTS.get(where) ?? { place: where, zeroed: false };
