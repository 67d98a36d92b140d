import type { Sequelize, Transaction } from 'sequelize';
import type { Fitted, Need, PartDetails } from '@isometra/contract';
import { addPart, addStripDown, changePart } from '../stripDowns.js';

/** A part as it was written down: when it came off, what it needed since, when it went back. */
interface DemoPart {
  readonly details: Record<string, unknown> & Pick<PartDetails, 'name'>;
  readonly need?: Need;
  readonly fitted?: Pick<Fitted, 'by' | 'at'>;
}

interface DemoStripDown {
  readonly name: string;
  readonly by: string;
  readonly at: string;
  /** In the order in which they came off, a few minutes apart. */
  readonly parts: readonly DemoPart[];
}

const back = (at: string, by = 'HB'): Pick<Fitted, 'by' | 'at'> => ({ at, by });

/** The headstock, lifted in June and put back in July with everything in it looked at. */
const HEADSTOCK: DemoStripDown = {
  ...{ name: 'Headstock', by: 'RM', at: '2026-06-21T16:10:00.000Z' },
  parts: [
    {
      details: {
        name: 'Gear cover',
        kind: 'cover',
        condition: 'clean',
        fastenings: [{ what: 'M6 × 16 cap screw', count: 6 }],
        box: 'shelf 2',
      },
      need: { state: 'done' },
      fitted: back('2026-07-05T18:40:00.000Z'),
    },
    {
      details: { name: 'Drive belt', kind: 'belt', marks: 'arrow on its back points to the rear', condition: 'good' },
      fitted: back('2026-07-05T16:05:00.000Z'),
    },
    {
      details: {
        ...{ name: 'Tumbler gears', kind: 'gear', count: 3, condition: 'clean', box: 'box 1' },
        fastenings: [{ what: 'M12 nut', thread: 'left', torque: 'hand tight' }],
      },
      need: { state: 'done' },
      fitted: back('2026-07-05T17:50:00.000Z'),
    },
    {
      details: {
        ...{ name: 'Front bearing cap', kind: 'cap', condition: 'clean', marks: 'F stamped toward the chuck', box: 'box 2' },
        shims: [
          { joint: 'bearing-cap', at: 'operator’s side', thickness: '0.30 mm', layers: 4 },
          { joint: 'bearing-cap', at: 'far side', thickness: '0.30 mm', layers: 4 },
        ],
        fastenings: [{ what: '1/2 in BSW stud nut', count: 4, torque: '45 N m' }],
        asFound: 'light drag, even over the turn',
      },
      need: { state: 'done' },
      fitted: back('2026-07-05T16:30:00.000Z'),
    },
    {
      details: {
        ...{ name: 'Rear bearing cap', kind: 'cap', condition: 'clean', marks: 'R stamped toward the chuck', box: 'box 2' },
        shims: [{ joint: 'bearing-cap', at: 'far side', thickness: '0.25 mm', layers: 3 }],
        fastenings: [{ what: '1/2 in BSW stud nut', count: 4, torque: '45 N m' }],
      },
      need: { state: 'done' },
      fitted: back('2026-07-05T16:55:00.000Z'),
    },
    {
      details: { name: 'Spindle', kind: 'shaft', lift: 'two', condition: 'clean', notes: 'Wrapped and hung by the nose, not laid down.' },
      need: { state: 'done' },
      fitted: back('2026-07-05T15:40:00.000Z'),
    },
    {
      details: {
        ...{ name: 'Headstock casting', kind: 'body', lift: 'gear', condition: 'clean', marks: 'centre punch on the bed and on the foot' },
        shims: [
          { joint: 'headstock', at: 'left rear', thickness: '0.10 mm', layers: 2 },
          { joint: 'headstock', at: 'right rear', thickness: '0.05 mm', layers: 1 },
        ],
        fastenings: [{ what: 'M16 × 60 hex screw', count: 4, torque: '120 N m', hidden: 'two of them under the gear cover' }],
        notes: 'Three brass shims under the rear foot, one folded double: bagged and labelled.',
      },
      need: { state: 'done' },
      fitted: back('2026-07-05T14:20:00.000Z'),
    },
  ],
};

/** The apron, on the bench now: what it needs is on order. */
const APRON: DemoStripDown = {
  ...{ name: 'Apron', by: 'HB', at: '2026-11-08T09:05:00.000Z' },
  parts: [
    {
      details: {
        name: 'Saddle wiper, front',
        condition: 'order',
        seals: 'felt 6 mm, 40 × 12',
        fastenings: [{ what: 'M4 × 8 screw', count: 2 }],
      },
      need: { state: 'ordered', expected: '2026-12-04', from: 'the felt works' },
    },
    {
      details: {
        name: 'Lead screw bracket',
        condition: 'clean',
        fastenings: [{ what: 'taper pin', count: 2, hidden: 'driven from below' }],
        box: 'box 4',
      },
    },
    {
      details: { name: 'Half nuts', kind: 'gear', count: 2, condition: 'make', marks: 'numbered 1 and 2, with their halves', box: 'box 4' },
      need: { state: 'ordered', expected: '2026-11-24', from: 'RM, evenings' },
    },
    {
      details: {
        name: 'Half nut gib',
        kind: 'gib',
        condition: 'clean',
        thickEnd: 'down',
        fastenings: [{ what: 'M5 grub screw', count: 3 }],
        box: 'box 4',
      },
    },
    {
      details: {
        ...{ name: 'Worm shaft', kind: 'shaft', condition: 'good', asFound: '0.1 mm end play', load: 'spring' },
        fastenings: [{ what: 'M10 nut', thread: 'left', hidden: 'behind the dust cap' }],
      },
    },
    {
      details: {
        name: 'Apron casting',
        kind: 'body',
        lift: 'two',
        condition: 'clean',
        fastenings: [{ what: 'M12 × 50 cap screw', count: 4, torque: '70 N m' }],
      },
    },
  ],
};

const MINUTE = 60_000;

/** What was taken apart of the long lathe, as it was written down. */
export async function fillStripDowns(sequelize: Sequelize, machineId: string, transaction: Transaction): Promise<void> {
  for (const { name, by, at, parts } of [HEADSTOCK, APRON]) {
    const stripDownId = crypto.randomUUID();
    await addStripDown(sequelize, { id: stripDownId, machineId, name, version: 1 }, { by, at }, transaction);
    for (const [i, { details, need = null, fitted }] of parts.entries()) {
      const off = new Date(Date.parse(at) + (i + 1) * 7 * MINUTE).toISOString();
      const part = { id: crypto.randomUUID(), stripDownId, number: i + 1, place: i + 1, details, pictures: [], version: 1 };
      await addPart(sequelize, { ...part, need: fitted ? null : need, fitted: null, by, at: off }, transaction);
      if (fitted) await changePart(sequelize, { ...part, need, fitted: { ...fitted, ticks: [] }, ...fitted }, transaction);
    }
  }
}
