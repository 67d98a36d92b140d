/** What a grip says of a bearing. Source: docs/methods/scraping.md. */
interface Grip {
  readonly code: string;
  readonly text: string;
}

const GRIPS: readonly { readonly below: number; readonly code: string; readonly text: string }[] = [
  { below: 0.15, code: 'hinge-high', text: 'It turns at one place whichever end is pushed: high there.' },
  { below: 0.33, code: 'hinge-crowned', text: 'Crowned, or bearing over one part only, which a centre off the middle tells.' },
  { below: 0.5, code: 'hinge-even', text: 'It bears evenly, or on two bands: the print decides.' },
  { below: 0.7, code: 'hinge-light-middle', text: 'Light in the middle.' },
  { below: Infinity, code: 'hinge-hollow', text: 'Hollow: it bears at its ends.' },
];

/** What a grip (the distance between the two pivots over the length) says of a bearing. */
export const gripOf = (grip: number): Grip => GRIPS.find(({ below }) => grip < below) as Grip;
