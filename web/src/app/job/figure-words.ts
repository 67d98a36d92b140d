import type { JobDrawing, Way } from '@isometra/core';

const SIDES: Readonly<Record<Way, string>> = {
  toward: 'your side',
  away: 'rear',
  left: 'left',
  right: 'right',
  up: 'top',
  down: 'bottom',
};

/** The side of a part, as its screw is labelled. */
export const sideLabel = (way: Way): string => SIDES[way];

const GOES: Readonly<Record<Way, string>> = {
  toward: 'toward you',
  away: 'away from you',
  left: 'to the left',
  right: 'to the right',
  up: 'up',
  down: 'down',
};

/** From where a drawing is seen. */
export function seenFrom(drawing: JobDrawing): string {
  switch (drawing.shows) {
    case 'screws':
    case 'guide':
      return 'Seen from above, you at the bottom';
    case 'ends':
      return 'Seen from where you stand';
    case 'joint':
      return /left|right/.test(drawing.raise) ? 'Seen from the front' : 'Seen from the right side of the machine';
    case 'head':
      return drawing.way === 'left' || drawing.way === 'right' ? 'Seen from the front' : 'Seen from the right side of the machine';
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
      return drawing.drive === null || drawing.slack === null
        ? `One screw moves the part ${GOES[drawing.way]}`
        : `The part goes ${GOES[drawing.way]}: slack the screw at ${SIDES[drawing.slack]}, drive the one at ${SIDES[drawing.drive]}`;
    case 'guide':
      return `The shim goes in at the ${drawing.end} end, on the ${drawing.side} side`;
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
