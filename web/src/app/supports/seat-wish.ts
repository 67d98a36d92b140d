import type { Choice } from '../ui/choices';

/** What is wanted of the casting, and by what means. */
export interface Wish {
  readonly want: Readonly<Record<string, number>>;
  readonly allow: 'scrape' | 'shim' | 'either' | 'own';
  readonly prefer: 'least-metal' | 'least-depth';
}

/** How the height between the centres is made good: at the head, at the tail, or half at each. */
export type HeightShare = 'free' | 'head' | 'both';

export const MEANS: readonly Choice<Wish['allow']>[] = [
  { value: 'scrape', label: 'scrape' },
  { value: 'shim', label: 'shim' },
  { value: 'either', label: 'either' },
  { value: 'own', label: 'face by face' },
];

export const SPARED: readonly Choice<Wish['prefer']>[] = [
  { value: 'least-metal', label: 'least metal' },
  { value: 'least-depth', label: 'least depth' },
];

export const SHARES: readonly Choice<HeightShare>[] = [
  { value: 'free', label: 'at the tail' },
  { value: 'head', label: 'at the head' },
  { value: 'both', label: 'half at each' },
];
