import type { Sequelize, Transaction } from 'sequelize';
import { dice, photographPrint, strewn } from '@isometra/core/practice';
import { cleanPicture, readPrint } from '@isometra/core/print';
import type { DeskEntry, EntryKind, Surface } from '@isometra/contract';
import { deskOf, gridZones, middleOf, wedgePlan } from '@isometra/work';
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
  evening: { session: 150, setUp: 20, cycle: 25 },
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
  const photo = photographPrint({ width: LENGTH, height: WIDTH, bumps, film: 4, shade: 0.3, grain: 5 }, camera as never, seed);
  const { width, height, data, corners } = photo;
  return { width, height, data, corners, bytes: Buffer.from(cleanPicture(await jpegOf(photo, 88))) };
}

/** The dovetail of the cross slide: widest in its middle, and begun only. */
const flankOf = (machineId: string): Surface => ({
  ...faceOf(machineId),
  ...{ name: 'Cross slide, front flank', part: 'cross slide', use: 'moving', width: 400, height: 26, mirrored: true },
  zones: gridZones(400, 26, 7, 1),
  aim: { check: 'dovetail-over-pins', quantity: 'widthRange', unit: 'um', wanted: 0, room: 10, lever: 1.22 },
});

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
  const flank = await addSurface(sequelize, flankOf(machineId), 'HB', transaction);
  const begun = { supersedes: null, by: 'HB', at: '2026-11-20T17:05:00.000Z', surfaceId: flank.id } as const;
  const high = ['3', '4', '2'].map((zone, i) => ({ zone, depth: [24, 15, 9][i] }));
  await addEntries(
    sequelize,
    [
      { ...begun, id: crypto.randomUUID(), kind: 'measure', content: { value: 29, doubt: 3, roundId: null } },
      { ...begun, id: crypto.randomUUID(), kind: 'plan', content: { depths: high, from: 'hand', why: 'over pins, flank by straightedge' } },
    ],
    flank.id,
    transaction,
  );
  write('hinge', { from: 0, length: LENGTH, a: 120, b: 92 });
  measure();
  for (const [i, day] of EVENINGS.entries()) {
    now = Math.max(now, FIRST + day * DAY);
    if (i > 0) measure();
    if (deskOf(surface, entries).step.code !== 'pass') {
      write('plan', wedgePlan(surface, { wedge: wedge(), high: 'left' }));
    }
    write('blue', { film: 4, dye: false, pressed: null });
    if (i === 0 || i === 4 || i === EVENINGS.length - 1) await printed(i + 3);
    for (let k = 0; k < (i < EVENINGS.length - 1 ? PASSES_AN_EVENING : SO_FAR); k++) {
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
