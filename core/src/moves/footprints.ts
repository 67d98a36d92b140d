import type { Support } from './supports.js';

/**
 * The four corners of the foot of a column: [x, y, z], mm from its middle, + right, toward the column's rear and up. A corner may be
 * scraped or shimmed.
 */
export function footFaces({ across, along }: { readonly across: number; readonly along: number }): Support[] {
  return (['front', 'rear'] as const).flatMap((end) =>
    (['left', 'right'] as const).map((side): Support => ({
      id: `${side} ${end}`,
      at: [(side === 'left' ? -1 : 1) * (across / 2), (end === 'front' ? -1 : 1) * (along / 2), 0],
      normal: [0, 0, 1],
      allow: 'either',
    })),
  );
}

/** How a casting sits: where its faces are and which way they look. Lathe axes [z, v, h], mm. */
export interface FootprintFacts {
  /** From the origin (the spindle nose, the front of a base) back to the nearest faces. */
  readonly near: number;
  /** Between the nearest and the farthest faces. */
  readonly length: number;
  /** From the faces on the operator's side to those at the rear. */
  readonly width: number;
  /** Included angle of a vee, or angle of a dovetail, degrees. */
  readonly angle?: number;
}

export const FOOTPRINTS = [
  { id: 'vee-flat', name: 'vee and flat', angle: 90 },
  { id: 'two-vees', name: 'two vees', angle: 90 },
  { id: 'four-pads', name: 'four pads', angle: undefined },
  { id: 'dovetail', name: 'dovetail', angle: 55 },
] as const;
export type FootprintKind = (typeof FOOTPRINTS)[number]['id'];

const rad = (degrees: number): number => (degrees * Math.PI) / 180;
/** Half the width of a vee at the middle of its flanks, mm: only where it is drawn depends on it. */
const HALF_VEE = 18;

const END = ['near', 'far'] as const;

function places({ near, length }: FootprintFacts): { readonly end: (typeof END)[number]; readonly z: number }[] {
  return END.map((end, i) => ({ end, z: -near - i * length }));
}

function vee(side: 'front' | 'rear', facts: FootprintFacts): Support[] {
  const half = rad((facts.angle ?? 90) / 2);
  const h = (side === 'front' ? 1 : -1) * (facts.width / 2);
  return places(facts).flatMap(({ end, z }) => [
    { id: `${side} vee ${end}, outer`, at: [z, 0, h + HALF_VEE], normal: [0, Math.sin(half), Math.cos(half)], allow: 'scrape' },
    { id: `${side} vee ${end}, inner`, at: [z, 0, h - HALF_VEE], normal: [0, Math.sin(half), -Math.cos(half)], allow: 'scrape' },
  ]);
}

function flats(side: 'front' | 'rear', facts: FootprintFacts, name: string): Support[] {
  const h = (side === 'front' ? 1 : -1) * (facts.width / 2);
  return places(facts).map(({ end, z }) => ({ id: `${side} ${name} ${end}`, at: [z, 0, h], normal: [0, 1, 0], allow: 'scrape' }));
}

/** The fixed flank of a dovetail: its face looks out and down into the body. */
function flank(facts: FootprintFacts): Support[] {
  const angle = rad(facts.angle ?? 55);
  return places(facts).map(({ end, z }) => ({
    id: `front flank ${end}`,
    at: [z, 0, facts.width / 2],
    normal: [0, -Math.cos(angle), Math.sin(angle)],
    allow: 'scrape',
  }));
}

/**
 * The faces of a casting by the way it sits, to begin with: every one is then moved or changed by hand.
 * The operator's side is + h.
 */
export function footprint(kind: FootprintKind, facts: FootprintFacts): Support[] {
  switch (kind) {
    case 'vee-flat':
      return [...vee('front', facts), ...flats('rear', facts, 'flat')];
    case 'two-vees':
      return [...vee('front', facts), ...vee('rear', facts)];
    case 'four-pads':
      return [...flats('front', facts, 'pad'), ...flats('rear', facts, 'pad')];
    case 'dovetail':
      return [...flats('front', facts, 'flat'), ...flats('rear', facts, 'flat'), ...flank(facts)];
  }
}
