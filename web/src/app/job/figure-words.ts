import type { JobDrawing, LevelWay } from '@isometra/core';

const SIDES: Readonly<Record<LevelWay, string>> = {
  toward: 'your side',
  away: 'rear',
  left: 'left',
  right: 'right',
};

/** The side of a part, as its screw is labelled. */
export const sideLabel = (way: LevelWay): string => SIDES[way];

const GOES: Readonly<Record<LevelWay, string>> = {
  toward: 'toward you',
  away: 'away from you',
  left: 'to the left',
  right: 'to the right',
};

/** Where an end goes that is pulled over. @param um + toward the operator. */
const pulledTo = (um: number): string => (Math.abs(um) < 0.5 ? 'nowhere' : um > 0 ? 'toward you' : 'away from you');

type SeenAcross = Extract<JobDrawing, { readonly shows: 'joint' | 'head' }>;

/** What goes left or right is seen from the front; what goes to the front or the rear, from the machine's right side. */
export const isSeenFromFront = (drawing: SeenAcross): boolean => /left|right/.test(drawing.shows === 'joint' ? drawing.raise : drawing.way);

const seenAcross = (drawing: SeenAcross): string =>
  isSeenFromFront(drawing) ? 'Seen from the front' : 'Seen from the right side of the machine';

/** From where a drawing is seen. */
export function seenFrom(drawing: JobDrawing): string {
  switch (drawing.shows) {
    case 'screws':
    case 'guide':
    case 'pulled':
      return 'Seen from above, you at the bottom';
    case 'ends':
      return 'Seen from where you stand';
    case 'joint':
    case 'head':
      return seenAcross(drawing);
    case 'sleeve':
      return 'Seen from the tailstock’s end';
    case 'gib':
      return drawing.screws.length ? 'Straight gib: from the middle outward' : 'Taper gib, from above';
  }
}

/** The same drawing in words, for who cannot see it. */
export function spokenFigure(drawing: JobDrawing): string {
  switch (drawing.shows) {
    case 'screws':
      return drawing.pair === null
        ? `One screw moves the part ${GOES[drawing.way]}`
        : `The part goes ${GOES[drawing.way]}: slack the screw at ${SIDES[drawing.pair.slack]}, drive the one at ${SIDES[drawing.pair.drive]}`;
    case 'guide':
      return `The shim goes in at the ${drawing.end} end, on the ${drawing.side} side`;
    case 'pulled':
      return `The near end goes ${pulledTo(drawing.near)}, the far end ${pulledTo(drawing.far)}`;
    case 'ends':
      return `Shims under the ${[...(drawing.front ? ['front'] : []), ...(drawing.rear ? ['rear'] : [])].join(' and the ') || 'base: none'}`;
    case 'joint':
      return drawing.metal
        ? `Most metal comes off at ${drawing.lower}, nothing at ${drawing.raise}`
        : `Shims under ${drawing.raise}, nothing under ${drawing.lower}`;
    case 'head':
      return `The top of the head goes ${GOES[drawing.way]}`;
    case 'sleeve':
      return `The sleeve turns from ${drawing.from.toFixed(1)}° to ${drawing.to.toFixed(1)}°`;
    case 'gib':
      return drawing.screws.length ? 'The gib screws are set from the middle outward' : 'The gib is driven at its large end';
  }
}
