import type { Finding } from './finding.js';

/** What a tailstock is used for. */
export interface TailstockUse {
  readonly kind: 'turning' | 'drilling';
  /** Longest length that is to come out parallel, mm. */
  readonly length?: number;
  /** Diameter of the work or the hole, mm. */
  readonly diameter?: number;
  readonly centreDistance?: number;
}

/** What an error does to the work: µm on diameter, and whether it is worth correcting for that work. */
export interface WorkEffect {
  readonly quantity: string;
  /** µm on diameter. */
  readonly effect: number;
  readonly what: string;
  /** Too small to matter for this work: leave it alone. */
  readonly leave: boolean;
}

const TOO_SMALL = 1;

/**
 * What the remaining error does to the stated work.
 *
 * Turning between centres: an offset h makes a taper of 2·h·length/centreDistance on diameter; a
 * height v changes it by 2·(√(R² + v²) − R), next to nothing on stout work. Drilling and reaming:
 * a tool held off the axis by r cuts up to 2·r over size at the mouth.
 */
export function effectOnWork(finding: Finding, use: TailstockUse): WorkEffect[] {
  const horizontal = finding.quantities['offsetHorizontal']?.value;
  const vertical = finding.quantities['offsetVertical']?.value;
  if (use.kind === 'drilling') {
    return [
      ...(horizontal === undefined ? [] : [drilled('offsetHorizontal', horizontal)]),
      ...(vertical === undefined ? [] : [drilled('offsetVertical', vertical)]),
    ];
  }
  const part = use.length !== undefined && use.centreDistance ? Math.min(1, use.length / use.centreDistance) : 1;
  const effects: WorkEffect[] = [];
  if (horizontal !== undefined) {
    const effect = 2 * Math.abs(horizontal) * part;
    effects.push({ quantity: 'offsetHorizontal', effect, what: 'taper on diameter over the length', leave: effect < TOO_SMALL });
  }
  if (vertical !== undefined) {
    const radius = (use.diameter ?? 25) / 2;
    const v = (vertical * part) / 1000;
    const effect = 2000 * (Math.sqrt(radius ** 2 + v ** 2) - radius);
    effects.push({ quantity: 'offsetVertical', effect, what: 'change of diameter from the height', leave: effect < TOO_SMALL });
  }
  return effects;
}

function drilled(quantity: string, offset: number): WorkEffect {
  const effect = 2 * Math.abs(offset);
  return { quantity, effect, what: 'over size at the mouth of a reamed hole, at most', leave: effect < TOO_SMALL };
}
