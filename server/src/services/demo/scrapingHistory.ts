import type { Sequelize, Transaction } from 'sequelize';
import { dice, photographPrint, strewn } from '@isometra/core/practice';
import { cleanPicture, readPrint } from '@isometra/core/print';
import type { DeskEntry, EntryKind, Surface } from '@isometra/contract';
import { deskOf, flanksOf, gridZones, middleOf, pinsPlan, wedgePlan } from '@isometra/work';
import { DOVETAIL } from './histories.js';
import { jpegOf } from '../jpeg.js';
import { keepPicture } from '../pictures.js';
import { addEntries, addSurface } from '../surfaces.js';

const LENGTH = 480;
const WIDTH = 64;
const DAY = 86_400_000;

/** The flat way of the saddle of the long lathe: it stands high at the headstock end, and is being brought down in strips. */
const faceOf = (machineId: string): Surface => ({
  ...{ id: crypto.randomUUID(), machineId, name: 'Saddle, flat way', part: 'saddle', use: 'general', target: null, version: 1 },
  ...{ material: 'iron', liner: null, width: LENGTH, height: WIDTH, turned: 0, mirrored: false },
  zones: gridZones(LENGTH, WIDTH, 6, 1),
  reference: { kitId: null, name: 'Camelback edge', length: 600 },
  // 1 µm more off one end than off the other turns the saddle by 1/0.48 µm/m.
  aim: { check: 'saddle-squareness', quantity: 'squareness', unit: 'um/m', wanted: 0, room: 20, lever: 1000 / LENGTH },
  passes: { rough: 12, fine: 5, keepFine: 2 },
  evening: { session: 150, setUp: 20, cycle: 25, check: 90 },
});

/** A pass of this hand really takes so much, µm. */
const HAND = { rough: 9.4, fine: 4.3 } as const;
/** Evenings of the autumn, by the days between them. */
const EVENINGS = [0, 2, 7, 9, 14, 16, 28, 49] as const;
const FIRST = Date.parse('2026-08-24T16:40:00.000Z');
const PASSES_AN_EVENING = 3;
/** On the last evening so many of them have been made. */
const SO_FAR = 1;

/** A photograph of the print as the face stands: where it is high it bears more. */
async function photograph(
  heights: readonly number[],
  seed: number,
): Promise<{
  readonly bytes: Buffer;
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray;
  readonly corners: readonly { x: number; y: number }[];
}> {
  const top = Math.max(...heights);
  const thrown = dice(seed);
  const bumps = strewn(LENGTH, WIDTH, 16, { seed, radius: 3.4, low: 6, high: 10 }).filter(({ x }) => {
    const zone = Math.min(heights.length - 1, Math.floor((x / LENGTH) * heights.length));
    return thrown() < 0.12 + 0.88 * Math.max(0, 1 - (top - heights[zone]) / 26);
  });
  const camera = {
    width: 760,
    height: 128,
    corners: [
      { x: 14, y: 12 },
      { x: 744, y: 9 },
      { x: 747, y: 116 },
      { x: 11, y: 113 },
    ],
  } as const;
  const photo = photographPrint({ width: LENGTH, height: WIDTH, bumps, film: 4, shade: 0.3, grain: 5 }, camera, seed);
  const { width, height, data, corners } = photo;
  return { width, height, data, corners, bytes: Buffer.from(cleanPicture(await jpegOf(photo, 88))) };
}

/** A flank of the dovetail of the cross slide: the front one is proud in its middle, and begun only. */
const flankOf = (machineId: string, name: string): Surface => ({
  ...faceOf(machineId),
  ...{ name, part: 'cross slide', use: 'moving', width: DOVETAIL.length, height: 26, mirrored: true },
  zones: gridZones(DOVETAIL.length, 26, DOVETAIL.places.length, 1),
  aim: { check: 'dovetail-over-pins', quantity: 'widthRange', unit: 'um', wanted: 0, room: 10, lever: 1.22 },
});
const ANGLE = 55;

/** Both flanks: pins tell where it is wide, the straightedge which of them it is. */
async function fillDovetail(sequelize: Sequelize, machineId: string, transaction: Transaction): Promise<void> {
  const rear = await addSurface(sequelize, flankOf(machineId, 'Cross slide, rear flank'), 'HB', transaction);
  const mate = { as: 'flank', surfaceId: rear.id, angle: ANGLE, apart: false } as const;
  const front = await addSurface(sequelize, { ...flankOf(machineId, 'Cross slide, front flank'), mate }, 'HB', transaction);
  const turn = ({ id }: Surface, [a, b]: readonly [number, number], again: readonly [number, number], at: string): DeskEntry => ({
    ...{ id: crypto.randomUUID(), surfaceId: id, kind: 'hinge', supersedes: null, by: 'HB', at },
    content: { from: 0, length: DOVETAIL.length, a, b, again: { a: again[0], b: again[1] } },
  });
  // Even pressure turns at L/√2 from the pushed end; a hump at itself.
  const even = turn(rear, [285, 118], [280, 115], '2026-11-20T16:44:00.000Z');
  const high = turn(front, [165, 148], [169, 152], '2026-11-20T16:52:00.000Z');
  const stood = { ...rear, entries: [even] };
  const proud = DOVETAIL.places.map((at, i) => ({ at, over: DOVETAIL.proud[i] / Math.sin((ANGLE * Math.PI) / 180) }));
  const found = flanksOf({ ...front, entries: [high] }, { other: stood, mate }, proud, 2, 'A');
  const plan = found && pinsPlan(front, found, ANGLE);
  const begun = { supersedes: null, by: 'HB', surfaceId: front.id } as const;
  await addEntries(sequelize, [even], rear.id, transaction);
  await addEntries(
    sequelize,
    [
      high,
      {
        ...{ ...begun, id: crypto.randomUUID(), at: '2026-11-20T17:05:00.000Z' },
        ...{ kind: 'measure', content: { value: 29, doubt: 3, roundId: null } },
      },
      ...(plan ? [{ ...begun, id: crypto.randomUUID(), at: '2026-11-20T17:06:00.000Z', kind: 'plan' as const, content: plan }] : []),
    ],
    front.id,
    transaction,
  );
}

/** Months at one face, as the desk itself would have had them done: passes where it said, measured now and then, three prints. */
export async function fillScraping(sequelize: Sequelize, machineId: string, transaction: Transaction): Promise<void> {
  const surface = await addSurface(sequelize, faceOf(machineId), 'HB', transaction);
  const entries: DeskEntry[] = [];
  const heights = surface.zones.map((zone) => 128 * (1 - middleOf(zone).x / LENGTH));
  let now = FIRST;
  const write = <Kind extends EntryKind>(kind: Kind, content: Extract<DeskEntry, { kind: Kind }>['content'], minutes = 4): void => {
    now += minutes * 60_000;
    const entry = {
      id: crypto.randomUUID(),
      surfaceId: surface.id,
      kind,
      content,
      supersedes: null,
      by: 'RM',
      at: new Date(now).toISOString(),
    } as DeskEntry;
    entries.push(entry);
  };
  /** The wedge that is left, µm over the face: least squares over its zones. */
  const wedge = (): number => {
    const places = surface.zones.map((zone) => middleOf(zone).x - LENGTH / 2);
    const slope = places.reduce((sum, x, i) => sum + x * heights[i], 0) / places.reduce((sum, x) => sum + x * x, 0);
    return -slope * LENGTH;
  };
  const measure = () => write('measure', { value: Math.round((wedge() * 1000) / LENGTH), doubt: 8, roundId: null }, 30);
  const printed = async (seed: number) => {
    const { bytes, corners, ...photo } = await photograph(heights, seed);
    const { spots, spotsPerSquare, bearingShare, largestBare, zones } = readPrint(photo, {
      scale: { corners, size: { width: LENGTH, height: WIDTH }, named: true },
      zones: surface.zones,
    });
    const { hash } = await keepPicture(sequelize, { type: 'jpeg', width: photo.width, height: photo.height, bytes, by: 'RM' }, transaction);
    write('print', {
      picture: hash,
      film: 4,
      pressed: null,
      corners: [...corners],
      threshold: 0.5,
      result: { spots, spotsPerSquare, bearingShare, largestBare, zones: [...zones] },
    });
  };
  await fillDovetail(sequelize, machineId, transaction);
  write('hinge', { from: 0, length: LENGTH, a: 120, b: 92 });
  measure();
  for (const [i, day] of EVENINGS.entries()) {
    now = Math.max(now, FIRST + day * DAY);
    if (i > 0) measure();
    if (!['pass', 'look'].includes(deskOf(surface, entries).step.code)) {
      write('plan', wedgePlan(surface, { wedge: wedge(), high: 'left' }));
    }
    write('blue', { film: 4, dye: false, pressed: null });
    if (i === 0 || i === 4 || i === EVENINGS.length - 1) await printed(i + 3);
    for (let k = 0; k < (i < EVENINGS.length - 1 ? PASSES_AN_EVENING : SO_FAR); k++) {
      if (deskOf(surface, entries).step.code === 'look') write('blue', { film: 4, dye: false, pressed: null });
      const { step, zones } = deskOf(surface, entries);
      const zone = step.code === 'pass' ? zones.find((entry) => entry.zone.id === step.zone) : undefined;
      if (!zone) break;
      write('pass', { zone: zone.zone.id, kind: 'whole', grade: zone.grade, angle: zone.angle }, 11);
      heights[surface.zones.indexOf(zone.zone)] -= HAND[zone.grade];
    }
    // The last evening is still going on.
    if (i < EVENINGS.length - 1) write('done', {}, 2);
  }
  await addEntries(sequelize, entries, surface.id, transaction);
}
