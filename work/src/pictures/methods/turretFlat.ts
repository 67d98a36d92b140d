import { alongLine, drawnOff, figure, profileOf } from './model.js';
import { axis, iron, mark, profile, reading, seat, where, words, type MethodInputs, type Scene } from './scene.js';

/** The turret as it is drawn. */
const TURRET = { left: 330, right: 630, top: 58, bottom: 200 };

/** A flat as it is seen for one way of reading it: along x or along y, which way the stylus points from it. */
interface Flat {
  readonly seen: string;
  readonly upright: boolean;
  /** Where the flat lies, across its own direction. */
  readonly line: number;
  /** Toward the stylus: + is right or down. */
  readonly toward: 1 | -1;
}
const FLATS: Readonly<Record<string, Flat>> = {
  operator: { seen: 'from above, you at the bottom', upright: false, line: TURRET.bottom, toward: 1 },
  rear: { seen: 'from above, you at the bottom', upright: false, line: TURRET.top, toward: -1 },
  above: { seen: 'from your side', upright: false, line: TURRET.top, toward: -1 },
  headstock: { seen: 'from above, you at the bottom', upright: true, line: TURRET.left, toward: -1 },
  tail: { seen: 'from above, you at the bottom', upright: true, line: TURRET.right, toward: 1 },
};

/** A turret with the ground flat that is read: from above, or from the operator's side where it is read square to the slide. */
export function turretFlat({ setup, marks }: MethodInputs): Scene {
  const { seen, upright, line, toward } = FLATS[String(setup['side'] ?? 'operator')] ?? FLATS['operator'];
  const { left, right, top, bottom } = TURRET;
  // The stylus stands on the side it reads from.
  const turn = upright ? toward * 90 : toward === 1 ? 180 : 0;
  const along = upright ? alongLine(marks, top + 16, bottom - 16) : alongLine(marks, left + 22, right - 22);
  const off = drawnOff(marks, 9, ({ keys }) => keys['turn']);
  const stations = marks.map((one, i) => {
    // What comes toward the stylus is drawn toward it.
    const across = line + toward * (off.get(one) ?? 0);
    return { mark: one, x: upright ? across : along[i], y: upright ? along[i] : across, beside: toward * 34 - (across - line) };
  });
  return {
    height: 270,
    told: 'Turret, with the places on its ground flat',
    of: [
      words(8, 18, seen),
      iron('M12 70H96V190H12Z M96 104H112V156H96Z'),
      words(20, 90, 'headstock'),
      axis('M112 130H300'),
      iron(`M${left} ${top}H${right}V${bottom}H${left}Z`),
      words(480, 134, 'turret', 'middle'),
      words(8, 262, upright ? 'moved along the slide' : 'moved along the spindle'),
      ...where(seen !== FLATS['above'].seen, words(712, 262, 'operator', 'end')),
      profile(profileOf(stations)),
      ...stations.map(({ mark: one, x, y, beside }) =>
        mark(one, x, y, [
          seat('M0 0 8 -15H-8Z', { at: { turn: [turn] } }),
          upright ? reading(beside, 4, figure(one.text), toward === 1 ? 'start' : 'end') : reading(0, beside + 4, figure(one.text)),
        ]),
      ),
    ],
  };
}
