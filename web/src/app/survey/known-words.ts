import type { Dimension } from '@isometra/core';
import { bothUnits, capital, isZero, slopeOver, type Shown } from '../ui/say';
import type { KnownLathe, KnownMill, KnownTurning } from '@isometra/work';

type Line = readonly [value: number | undefined, dimension: Dimension, subject: string, plus: string, minus: string, name?: string];

/** Which method said it last, and when: "bar between centres, 3 Mar 2026"; empty where there is one method only. */
export type ToldBy = (name: string) => string;
const NOBODY: ToldBy = () => '';

/** "Tailstock: 0.021 mm away from you.", or that it was not measured. */
function said([value, dimension, subject, plus, minus, name]: Line, shown: Shown, by: ToldBy = NOBODY): string {
  if (value === undefined) return `${subject}: not measured.`;
  const large = dimension === 'slope' ? slopeOver(value, 300, shown) : bothUnits(value, dimension, shown).large;
  const from = name && by(name) ? ` (${by(name)})` : '';
  return isZero(large)
    ? `${subject}: zero, as near as this can be read${from}.`
    : `${subject}: ${large} ${value > 0 ? plus : minus}${from}.`;
}

/** Each way by its own name. */
function wayWords(ways: KnownLathe['ways'] = [], shown: Shown): string[] {
  if (!ways.length) return ['Ways: not measured.'];
  return ways.map(({ name, heights: points }) => {
    const heights = points.map(({ height }) => height);
    const spread = bothUnits(Math.max(...heights) - Math.min(...heights), 'deviation', shown).large;
    return `${capital(name || 'way')}: within ${spread} of its line, top to bottom.`;
  });
}

/** What is known of a lathe, a line for each. */
export function latheWords(known: KnownLathe, shown: Shown, by: ToldBy = NOBODY): string[] {
  const lines: readonly Line[] = [
    [known.twistPerMetre, 'twist', 'Bed twist', 'your side rising toward the tailstock', 'your side falling toward the tailstock'],
    [known.axisSlopeH, 'slope', 'Spindle axis', 'toward you', 'away from you', 'axisSlopeH'],
    [known.axisSlopeV, 'slope', 'Spindle axis', 'up at its free end', 'down at its free end'],
    [known.tailH, 'deviation', 'Tailstock', 'toward you', 'away from you', 'tailH'],
    [known.tailV, 'deviation', 'Tailstock', 'high', 'low', 'tailV'],
    [known.quillH, 'slope', 'Quill', 'toward you at its free end', 'away from you at its free end'],
    [known.quillV, 'slope', 'Quill', 'up at its free end', 'down at its free end'],
    [known.facing, 'slope', 'Cross slide', 'facing hollow', 'facing crowned'],
  ];
  return [...lines.map((line) => said(line, shown, by)), ...wayWords(known.ways, shown)];
}

/** What is known of a turning centre, a line for each of what it has. */
export function turningWords(
  known: KnownTurning,
  has: { readonly sub: boolean; readonly bush: boolean; readonly tail: boolean },
  shown: Shown,
): string[] {
  const stands = (name: string, h: number | undefined, v: number | undefined): Line[] => [
    [h, 'deviation', name, 'toward you', 'away from you'],
    [v, 'deviation', name, 'high', 'low'],
  ];
  const pockets = known.pockets?.length ? known.pockets : [{ name: '', h: undefined, v: undefined }];
  const lines: readonly Line[] = [
    [known.twistPerMetre, 'twist', 'Bed twist', 'your side rising from the spindle', 'your side falling from the spindle'],
    [known.axisSlopeH, 'slope', 'Spindle axis', 'toward you', 'away from you'],
    [known.axisSlopeV, 'slope', 'Spindle axis', 'up at its free end', 'down at its free end'],
    ...pockets.flatMap(({ name, h, v }) => stands(name ? `Turret pocket, ${name}` : 'Turret pocket', h, v)),
    ...(has.bush ? stands('Guide bush', known.bushH, known.bushV) : []),
    ...(has.sub ? stands('Sub-spindle', known.subH, known.subV) : []),
    ...(has.tail ? stands('Tailstock', known.tailH, known.tailV) : []),
  ];
  // What was not measured at all is said once.
  return [...new Set(lines.map((line) => said(line, shown)))];
}

/** What is known of a mill, a line for each. */
export function millWords(known: KnownMill, shown: Shown): string[] {
  const lines: readonly Line[] = [
    [known.tableX, 'slope', 'Table along x', 'rising toward the right', 'falling toward the right'],
    [known.tableY, 'slope', 'Table along y', 'rising toward the column', 'falling toward the column'],
    [
      known.squareness,
      'slope',
      'The two motions',
      'more than square, the column’s end to the left',
      'less than square, the column’s end to the right',
    ],
    [known.leanX, 'slope', 'Column', 'leaning right', 'leaning left'],
    [known.leanY, 'slope', 'Column', 'leaning toward you', 'leaning back'],
    [known.slot, 'slope', 'Table slot', 'its right end toward you', 'its right end away from you'],
    [known.vice, 'slope', 'Vice jaw', 'its right end toward you', 'its right end away from you'],
    [known.tilt, 'slope', 'Head', 'leaning right', 'leaning left'],
    [known.nod, 'slope', 'Head', 'nodding toward you', 'nodding back'],
  ];
  return lines.map((line) => said(line, shown));
}
