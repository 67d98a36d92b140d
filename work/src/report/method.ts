import { CHECKS, type Finding } from '@isometra/core';
import type { RoundWrite } from '@isometra/contract';
import { placeOf } from '../notebook/keyOf.js';
import { drawMethod } from '../pictures/methods/index.js';
import { thinned } from '../pictures/methods/thinned.js';
import { resultOf, type MethodMark } from '../pictures/methods/model.js';
import type { Block } from './blocks.js';

type Keys = Readonly<Record<string, unknown>>;

/** Places of a round with their numbers on paper: a place that is read again keeps its own. */
export class NumberedPlaces {
  private readonly numbers = new Map<string, { readonly keys: Keys; readonly numbers: number[] }>();

  constructor(private readonly check: string) {}

  private keyOf(keys: Keys): string {
    const definition = CHECKS.get(this.check);
    return definition ? placeOf(definition, keys) : '';
  }

  /** The number of a place: that which it has, or the next one. */
  numberOf(keys: Keys): number {
    const key = this.keyOf(keys);
    const known = this.numbers.get(key);
    if (known) return known.numbers[0];
    this.numbers.set(key, { keys, numbers: [this.numbers.size + 1] });
    return this.numbers.size;
  }

  /** A place with a number that is told: a box is numbered by where it stands, whatever place it is for. */
  put(keys: Keys, number: number): void {
    const key = this.keyOf(keys);
    const known = this.numbers.get(key);
    if (known) known.numbers.push(number);
    else this.numbers.set(key, { keys, numbers: [number] });
  }

  /** As they are drawn: with their numbers in place of what they read. */
  marks(): MethodMark[] {
    const reading = CHECKS.get(this.check)?.reading;
    return [...this.numbers.values()].map(({ keys, numbers }, index) => {
      const read = reading?.safeParse(keys);
      const text = `(${numbers.join(', ')})`;
      return { index, keys: (read?.success ? read.data : keys) as MethodMark['keys'], label: text, state: 'todo', text, deviation: null };
    });
  }
}

/** What a drawing of a method is made from. */
interface Drawn {
  readonly round: Pick<RoundWrite, 'check' | 'setup'>;
  readonly places: NumberedPlaces;
  /** What was found: what is measured is drawn where it stands. */
  readonly finding?: Finding | null;
  /** How a length in mm is written. */
  readonly length: (mm: number) => string;
}

/** How a round is read, drawn with the numbers of its places; nothing where its set-up says too little. */
export function methodBlock({ round, places, finding, length }: Drawn): Block[] {
  const definition = CHECKS.get(round.check);
  const setup = definition?.setup.safeParse(round.setup);
  const marks = places.marks();
  if (!definition || !setup?.success || marks.length === 0) return [];
  const { picture } = definition;
  const scene = drawMethod({
    setup: setup.data,
    marks: thinned(marks, -1),
    result: resultOf(picture, finding?.quantities ?? {}),
    picture,
    length,
  });
  return [{ kind: 'method', scene }];
}
