import fc from 'fast-check';
import type { Part, StoredStripDown } from '@isometra/contract';
import { assemblyOf, inOrder, nextStep, placeBetween } from './assembly.js';
import { foundShims } from './foundShims.js';
import { daysOverdue, inNeed, needOf } from './needs.js';
import { partCautions } from './partWords.js';

const mm = (length: number): string => `${length.toFixed(2)} mm`;
const part = (number: number, details: Record<string, unknown>, more: Partial<Part> = {}): Part => ({
  ...{ id: `p${number}`, stripDownId: 's', number, place: number, pictures: [], need: null, fitted: null, version: 1 },
  details: { name: `Part ${number}`, ...details },
  ...more,
});
const fitted = { by: 'HB', at: '2026-11-29T19:00:00.000Z', ticks: [] };
const stepOf = (parts: readonly Part[], number: number) => {
  const step = assemblyOf(parts, mm).find((entry) => entry.part.number === number);
  if (!step) throw new Error('no such step');
  return step;
};
const textsOf = (parts: readonly Part[], number: number): readonly string[] => stepOf(parts, number).checks.map(({ text }) => text);

describe('a strip-down played backwards', () => {
  it('begins with what came off last, whatever number it has', () => {
    const parts = [part(1, {}), part(3, {}, { place: 1.5 }), part(2, {})];
    expect(inOrder(parts).map(({ number }) => number)).toEqual([1, 3, 2]);
    expect(assemblyOf(parts, mm).map((step) => step.part.number)).toEqual([2, 3, 1]);
  });

  it('is the order of taking apart, turned round, for any parts, and what was removed is left out', () => {
    const places = fc.array(fc.record({ place: fc.double({ min: 0, max: 100, noNaN: true }), removed: fc.boolean() }), { maxLength: 20 });
    fc.assert(
      fc.property(places, (all) => {
        const parts = all.map(({ place, removed }, i) => part(i + 1, {}, { place, ...(removed && { removed }) }));
        const back = assemblyOf(parts, mm).map((step) => step.part.number);
        expect([...back].reverse()).toEqual(inOrder(parts).map(({ number }) => number));
        expect(back.length).toBe(all.filter(({ removed }) => !removed).length);
      }),
    );
  });

  it('goes on with the first part that is not fitted', () => {
    const parts = [part(1, {}), part(2, {}, { fitted }), part(3, {}, { fitted })];
    expect(nextStep(assemblyOf(parts, mm))?.part.number).toBe(1);
    expect(
      nextStep(
        assemblyOf(
          parts.map((one) => ({ ...one, fitted })),
          mm,
        ),
      ),
    ).toBeUndefined();
  });

  it('asks for the belt before the cap, wherever the belt stands in the list', () => {
    const belt = part(1, { name: 'Drive belt', kind: 'belt' });
    const cap = part(2, { name: 'Front cap', kind: 'cap' });
    const step = stepOf([belt, cap], 2);
    expect(step.first).toBe(
      'Fit this first: part 1, Drive belt. A belt cannot go on after this. If it can be joined in place, change it to “a part”.',
    );
    expect(step.checks.map(({ text }) => text)).toContain('Check that the belt is on: part 1, Drive belt. It cannot go on after this.');
    // Once it is on, nothing stands in the way; it is looked at all the same.
    expect(stepOf([{ ...belt, fitted }, cap], 2).first).toBeUndefined();
    expect(textsOf([{ ...belt, fitted }, cap], 2).length).toBe(1);
    expect(textsOf([cap], 2)).toEqual(['Check that every belt, chain and gear is on the shaft: none goes on after this cap.']);
    expect(textsOf([belt, part(3, { kind: 'cover' })], 3)).toEqual([]);
  });

  it('has the drag felt before the first cover that closes over a shaft, and not again before the next', () => {
    const parts = [
      part(1, { kind: 'cover', name: 'Lid' }),
      part(2, { kind: 'cover', name: 'Guard' }),
      part(3, { kind: 'bearing', asFound: 'light drag' }),
    ];
    expect(textsOf(parts, 2)).toEqual(['Turn the shaft by hand and feel the drag before this cover closes. As found: light drag.']);
    expect(textsOf(parts, 1)).toEqual([]);
  });

  it('says where each shim lies, and asks for the corner that nobody wrote down', () => {
    const shims = [
      { joint: 'headstock', at: 'left front', thickness: '0.3 mm', layers: 2 },
      { joint: 'headstock', thickness: '0.002 in' },
    ];
    const step = stepOf([part(1, { shims })], 1);
    expect(step.corners).toEqual([1]);
    expect(step.checks.map(({ text }) => text)).toEqual([
      'Lay the shim in: 0.30 mm in 2 layers, headstock on the bed, left front.',
      'Lay the shim in, 0.05 mm, headstock on the bed. Its corner is not known: measure the alignment before you trust it.',
    ]);
    expect(step.cautions).toEqual(['Shim edges cut: wear gloves.']);
  });

  it('says which way a gib goes, or to find it out', () => {
    expect(textsOf([part(1, { kind: 'gib', thickEnd: 'toward the tailstock' })], 1)).toEqual(['Thick end toward the tailstock.']);
    expect(textsOf([part(1, { kind: 'gib' })], 1)[0]).toContain('nobody wrote down');
  });

  it('tells left-hand threads, hidden screws and torques, and what must be ready first', () => {
    const fastenings = [{ what: 'M8 grub screw', count: 2, hidden: 'under the plate', thread: 'left', torque: '9 N m' }];
    const texts = textsOf([part(1, { condition: 'order', marks: 'dot up', seals: 'felt', asFound: '0.1 mm play', fastenings })], 1);
    expect(texts).toEqual([
      'Fit the new one that was ordered, not the old one.',
      'Turn it the way it was marked: dot up.',
      'Fit the seals: felt.',
      '2 × M8 grub screw, left-hand thread: loosens clockwise, tightens anticlockwise, torque as found 9 N m, hidden: under the plate.',
      'Compare with what was found: 0.1 mm play.',
    ]);
  });

  it('warns of weight and of what is under load, each way in its own words', () => {
    const heavy = { name: 'Ram', lift: 'gear', load: 'weight' } as const;
    expect(partCautions(heavy, 'off')).toEqual([
      'Lift it with rated gear, never by hand over an edge.',
      'Block the counterweight before you loosen anything.',
    ]);
    expect(partCautions(heavy, 'on')[1]).toBe('Keep the counterweight blocked until every screw is tight.');
    expect(partCautions({ name: 'Ram', lift: 'two' }, 'on')).toEqual(['Two people lift this part.']);
  });
});

describe('the place of a part in the order', () => {
  it('is between its neighbours, or beyond the last one', () => {
    expect(placeBetween(2, 3)).toBe(2.5);
    expect(placeBetween(undefined, 1)).toBe(0.5);
    expect(placeBetween(2.5, undefined)).toBe(3);
    expect(placeBetween(undefined, undefined)).toBe(1);
  });
});

describe('what is needed', () => {
  const today = '2026-11-29';
  const rows = [
    { part: part(1, { condition: 'order' }, { need: { state: 'done' } }) },
    { part: part(2, { condition: 'order' }, { need: { state: 'ordered', expected: '2026-12-12' } }) },
    { part: part(3, { condition: 'clean' }) },
    { part: part(4, { condition: 'good' }) },
    { part: part(5, { condition: 'make' }, { need: { state: 'ordered', expected: '2026-11-20' } }) },
    { part: part(6, { condition: 'mend' }, { need: { state: 'here' } }) },
    { part: part(7, { condition: 'mend' }, { removed: true }) },
    { part: part(8, {}) },
  ];

  it('stands in order: overdue, not begun, on order, here, done; what is good or not looked at is not in it', () => {
    expect(inNeed(rows, today).map((row) => row.part.number)).toEqual([5, 3, 2, 6, 1]);
    expect(needOf(rows[2].part)).toEqual({ state: 'needed' });
    expect(needOf(rows[3].part)).toBeUndefined();
  });

  it('is overdue by days once its day is over, and no longer when it is here', () => {
    expect(daysOverdue({ state: 'ordered', expected: '2026-11-20' }, today)).toBe(9);
    expect(daysOverdue({ state: 'ordered', expected: today }, today)).toBe(0);
    expect(daysOverdue({ state: 'here', expected: '2026-11-20' }, today)).toBe(0);
  });
});

describe('shims that were found in a joint', () => {
  it('are those of that joint, of parts that stand, of strip-downs in work', () => {
    const shims = [
      { joint: 'headstock', at: 'left front', thickness: '0.3 mm' },
      { joint: 'bearing-cap', at: 'far side', thickness: '0.5 mm' },
    ];
    const stripDown = (more: Partial<StoredStripDown>): StoredStripDown => ({
      ...{
        id: 's',
        machineId: 'm',
        name: 'Headstock',
        version: 1,
        begunAt: fitted.at,
        parts: [part(1, { shims }), part(2, { shims }, { removed: true })],
      },
      ...more,
    });
    const found = foundShims([stripDown({}), stripDown({ archived: true })], 'headstock');
    expect(found.map(({ shim, part: { number } }) => [shim.at, shim.thickness, number])).toEqual([['left front', 0.3, 1]]);
  });
});
