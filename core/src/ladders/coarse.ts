/** A rough look before any indicator: it tells a direction, never a number. */
export interface CoarseStep {
  readonly id: string;
  readonly title: string;
  readonly how: string;
  readonly sees: readonly { readonly what: string; readonly then: string }[];
}

/**
 * Rough steps for a tailstock that is far out.
 *
 * The pinched rule: the head point presses one face at the middle, the tail point the other face a
 * little to one side, so the rule turns about a line between them. When the end toward the operator
 * swings toward the headstock, the tail point stands toward the operator; likewise the top for height.
 */
export const COARSE_STEPS: readonly CoarseStep[] = [
  {
    id: 'witness-marks',
    title: 'Witness marks',
    how: 'Wipe the scribed marks at the rear of the tailstock base and top and look along them.',
    sees: [
      { what: 'The mark on the top half is toward you', then: 'Tailstock is toward you. Bring it away from you.' },
      { what: 'The mark on the top half is away from you', then: 'Tailstock is away from you. Bring it toward you.' },
    ],
  },
  {
    id: 'points',
    title: 'Points brought together',
    how: 'Bring the tail centre up to the headstock centre until they all but touch. Look from above, then from the side.',
    sees: [
      { what: 'From above, the tail point is toward you', then: 'Tailstock is toward you. Bring it away from you.' },
      { what: 'From above, the tail point is away from you', then: 'Tailstock is away from you. Bring it toward you.' },
      { what: 'From the side, the tail point is higher', then: 'Tailstock is high.' },
      { what: 'From the side, the tail point is lower', then: 'Tailstock is low.' },
    ],
  },
  {
    id: 'pinched-rule',
    title: 'A rule pinched between the points',
    how: 'Pinch a thin steel rule lightly between the two points, first lying flat across the bed, then standing upright.',
    sees: [
      { what: 'Lying flat, its end toward you swings toward the headstock', then: 'Tailstock is toward you. Bring it away from you.' },
      { what: 'Lying flat, its end toward you swings toward the tailstock', then: 'Tailstock is away from you. Bring it toward you.' },
      { what: 'Upright, its top swings toward the headstock', then: 'Tailstock is high.' },
      { what: 'Upright, its top swings toward the tailstock', then: 'Tailstock is low.' },
    ],
  },
];
