import { solve } from '@isometra/core';
import type { Surface } from '@isometra/contract';
import { deskOf } from './desk.js';
import { flankSince, flanksOf, mateOf, pinsPlan, planesPlan } from './mates.js';
import { gridZones } from './plan.js';
import { findingHead } from '../sheets/sheet.js';
import { DeskDiary, face } from '../testing/surface.js';

const ZONES = gridZones(400, 26, 7, 1);
/** The flanks of one dovetail, 400 mm long, in seven zones. */
function flanks(apart = false): { readonly near: DeskDiary; readonly far: DeskDiary } {
  const machineId = crypto.randomUUID();
  const part: Partial<Surface> = { machineId, height: 26, zones: ZONES };
  const far = new DeskDiary(face({ ...part, name: 'Cross slide, rear flank' }));
  const mate = { as: 'flank', surfaceId: far.surface.id, angle: 55, apart } as const;
  return { near: new DeskDiary(face({ ...part, name: 'Cross slide, front flank', mate })), far };
}
const stored = (diary: DeskDiary) => ({ ...diary.surface, entries: diary.entries });
const turn = (diary: DeskDiary, a: number, b: number) => diary.write('hinge', { from: 0, length: 400, a, b });
const even = (diary: DeskDiary) => turn(diary, 283, 117);
/** 0-1-3-1-0-0-0 in tenths of a thou, over pins. */
const PINS = [0, 2.54, 7.62, 2.54, 0, 0, 0].map((over, i) => ({ at: 29 + i * 57, over }));

function told({ near, far }: ReturnType<typeof flanks>, from: 'A' | 'B' = 'A') {
  const found = mateOf(near.surface, [stored(near), stored(far)]);
  if (found?.mate.as !== 'flank') throw new Error('no flank');
  return flanksOf(stored(near), { other: found.other, mate: found.mate }, PINS, 1.3, from);
}

describe('two flanks of a dovetail', () => {
  it('0-1-3-1-0-0-0: the second flank is guilty, and only its desk has a plan', () => {
    const both = flanks();
    expect(told(both)?.untried).toEqual(['here', 'other']);
    expect(told(both)?.call.guilt).toBe('untold');
    even(both.near);
    turn(both.far, 150, 138);
    const found = told(both);
    expect([found?.call.guilt, found?.untried]).toEqual(['other', []]);
    if (!found) return;
    expect(pinsPlan(both.near.surface, found, 55)).toBeUndefined();
    // Seen from the other one it is that one.
    const mate = mateOf(both.far.surface, [stored(both.near), stored(both.far)]);
    expect(mate?.other.id).toBe(both.near.surface.id);
    if (mate?.mate.as !== 'flank') return;
    const there = flanksOf(stored(both.far), { other: mate.other, mate: mate.mate }, PINS, 1.3, 'A');
    expect(there?.call.guilt).toBe('here');
    const plan = there && pinsPlan(both.far.surface, there, mate.mate.angle);
    expect(plan?.depths.map(({ depth }) => Math.round(10 * depth) / 10)).toEqual([0, 2.1, 6.2, 2.1, 0, 0, 0]);
    expect(plan?.why).toContain('all off this flank');
  });

  it('what a round over pins tells is what stands proud as it was read, also where it tapers; between the pins it turns round', () => {
    const told = (side: 'outside' | 'inside') => {
      const readings = [106.42, 106.424, 106.436, 106.432, 106.428].map((value, i) => ({ at: 50 * i, value }));
      const sheet = {
        format: 'isometra-sheet/1',
        check: 'dovetail-over-pins',
        instrument: { kind: 'micrometer', graduation: '1 um' },
        setup: { pin: 8, angle: 55, side },
        readings,
      };
      return findingHead(solve(sheet), sheet).profile?.map(({ height }) => Math.round(10 * height) / 10);
    };
    expect(told('outside')).toEqual([0, 4, 16, 12, 8]);
    expect(told('inside')).toEqual([16, 12, 0, 4, 8]);
  });

  it('ends that lie apart, and places counted from the other end, are turned round', () => {
    const both = flanks(true);
    even(both.near);
    turn(both.far, 262, 250);
    expect(told(both)?.call.guilt).toBe('other');
    const straight = flanks();
    even(straight.near);
    turn(straight.far, 262, 250);
    expect(told(straight)?.call.guilt).withContext('high somewhere else').toBe('untold');
    expect(told(straight, 'B')?.call.guilt).withContext('the pins were counted from end B').toBe('other');
  });

  it('what metal has come off since tells nothing any more', () => {
    const both = flanks();
    even(both.near);
    turn(both.far, 150, 138);
    both.far.passes(1, '3');
    expect([told(both)?.call.guilt, told(both)?.untried]).toEqual(['untold', ['other']]);
  });

  it('both guilty: half off each; hollow afterwards where the pins read wide: it was the other one', () => {
    const both = flanks();
    turn(both.near, 150, 138);
    turn(both.far, 150, 138);
    const found = told(both);
    expect(found?.call.guilt).toBe('both');
    const plan = found && pinsPlan(both.near.surface, found, 55);
    expect(plan?.depths[2].depth).toBeCloseTo((7.62 * Math.sin((55 * Math.PI) / 180)) / 2, 1);
    if (!plan) return;
    both.near.write('plan', plan);
    both.near.passes(1, '3');
    turn(both.near, 330, 70);
    const mate = mateOf(both.near.surface, [stored(both.near), stored(both.far)]);
    if (mate?.mate.as !== 'flank') throw new Error('no flank');
    const pair = { other: mate.other, mate: mate.mate };
    const desk = (pins?: { readonly at: string; readonly far?: DeskDiary }) => {
      const found = pins && {
        ...pair,
        other: pins.far ? stored(pins.far) : pair.other,
      };
      const flank = found && flankSince(stored(both.near), found, { places: PINS, doubt: 1.3, at: pins.at });
      return deskOf(both.near.surface, [...both.near.entries], { flank });
    };
    const codes = (...args: Parameters<typeof desk>) => desk(...args).notes.map(({ code }) => code);
    // A hollow flank alone says that too much came off; which of the two was straight is told by the other one and by new pins.
    expect(codes()).toContain('overshot');
    expect(codes({ at: '2020-01-01T00:00:00.000Z' }))
      .withContext('pins of before')
      .toContain('overshot');
    const fresh = '2027-01-01T00:00:00.000Z';
    expect(codes({ at: fresh })).toContain('wrong-flank');
    expect(desk({ at: fresh }).step.code).toBe('other-flank');
    const scraped = new DeskDiary(both.far.surface);
    turn(scraped, 150, 138);
    scraped.passes(1, '3');
    expect(codes({ at: fresh, far: scraped }))
      .withContext('metal came off the other one since')
      .toContain('overshot');
    even(both.near);
    expect(codes({ at: fresh })).not.toContain('wrong-flank');
    expect(codes({ at: fresh })).not.toContain('overshot');
  });
});

describe('two faces that must be one plane', () => {
  const pair = () => {
    const machineId = crypto.randomUUID();
    const pad = { machineId, width: 100, height: 100, zones: gridZones(100, 100, 2, 2) };
    const other = face({ ...pad, name: 'Rear pad' });
    return { own: face({ ...pad, name: 'Front pad', mate: { as: 'plane', surfaceId: other.id, x: 0, y: 300 } }), other };
  };
  const flat = (height: number) => ({ 1: height, 2: height, 3: height, 4: height });

  it('20 µm apart: without tilt the high one comes down by all of it; free to lean, by what the lean leaves standing', () => {
    const { own, other } = pair();
    if (own.mate?.as !== 'plane') throw new Error('no plane');
    const depths = (plan?: { depths: readonly { depth: number }[] }) => plan?.depths.map(({ depth }) => Math.round(10 * depth) / 10);
    const told = (tilt?: { x: number; y: number }) => {
      const plans = own.mate?.as === 'plane' && planesPlan(own, { other, mate: own.mate }, { own: flat(20), other: flat(0) }, 0, tilt);
      return plans ? [depths(plans.own), depths(plans.other)] : [];
    };
    expect(told({ x: 0, y: 0 })).toEqual([
      [20, 20, 20, 20],
      [0, 0, 0, 0],
    ]);
    // From 20 at 25 mm down to 0 at 325 mm: 3.3 off what stands above that line on either pad.
    expect(told()).toEqual([
      [0, 0, 3.3, 3.3],
      [0, 0, 3.3, 3.3],
    ]);
    expect(planesPlan(own, { other, mate: own.mate }, { own: flat(20), other: {} }, 0)).toBeUndefined();
  });

  it('on a slant that both share nothing comes off; a bump on one costs only there', () => {
    const { own, other } = pair();
    if (own.mate?.as !== 'plane') throw new Error('no plane');
    // Middles of the zones: 25 and 75 along, the same across, 300 further for the other.
    const slope = (y: number) => y / 10;
    const heights = {
      own: { 1: slope(25), 2: slope(25), 3: slope(75), 4: slope(75) },
      other: { 1: slope(325), 2: slope(325), 3: slope(375), 4: slope(375) },
    };
    const none = planesPlan(own, { other, mate: own.mate }, heights, 0);
    expect([...(none?.own.depths ?? []), ...(none?.other.depths ?? [])].every(({ depth }) => depth < 1e-6)).toBe(true);
    const bump = planesPlan(own, { other, mate: own.mate }, { ...heights, own: { ...heights.own, 2: slope(25) + 9 } }, 0);
    expect(bump?.own.depths.map(({ depth }) => Math.round(depth))).toEqual([0, 9, 0, 0]);
    expect(bump?.other.depths.every(({ depth }) => depth < 1e-6)).toBe(true);
    // Seen from the other one the corner lies the other way.
    expect(mateOf({ ...other, mate: null }, [{ ...own, entries: [] }])?.mate).toEqual({ as: 'plane', surfaceId: own.id, x: -0, y: -300 });
  });
});
