import fc from 'fast-check';
import { pivotsOf } from '@isometra/core';
import { deskOf } from './desk.js';
import { habitOf } from './looks.js';
import { gridZones } from './plan.js';
import { DeskDiary, face } from '../testing/surface.js';

const plan = (diary: DeskDiary, ...depths: number[]) =>
  diary.write('plan', { depths: depths.map((depth, i) => ({ zone: String(i + 1), depth })), from: 'plane', why: 'as it is' });
const turn = (diary: DeskDiary, a: number, b: number) => diary.write('hinge', { from: 0, length: 400, a, b });
const measure = (diary: DeskDiary, value: number) => diary.write('measure', { value, doubt: 4, roundId: null });
const told = (diary: DeskDiary) => deskOf(diary.surface, [...diary.entries]);
const step = (diary: DeskDiary) => told(diary).step;

describe('between passes', () => {
  it('it is looked at again after two passes over a zone; any look goes on with the plan', () => {
    const diary = new DeskDiary(face());
    plan(diary, 0, 0, 0, 90);
    diary.passes(1, '4');
    expect(step(diary).code).toBe('pass');
    diary.passes(1, '4');
    expect(step(diary)).toEqual({ code: 'look', passes: 2 });
    expect(told(diary).next).withContext('nothing is yellow but the look').toBeNull();
    const looks = [() => diary.blue(), () => turn(diary, 346, 54), () => measure(diary, 50)];
    for (const look of looks) {
      look();
      expect(step(diary).code).toBe('pass');
      diary.passes(2, '4');
    }
  });

  it('another zone that has not been worked since is not held up', () => {
    const diary = new DeskDiary(face());
    plan(diary, 0, 46, 46, 46);
    diary.passes(2, '4', '3');
    expect(step(diary)).toEqual(jasmine.objectContaining({ code: 'pass', zone: '2' }));
    diary.passes(2, '2');
    expect(step(diary).code).toBe('look');
  });

  it('who looks after each pass is asked after each pass', () => {
    const diary = new DeskDiary(face());
    plan(diary, 0, 0, 0, 90);
    for (let i = 0; i < 2; i++) diary.passes(1, '4').blue();
    expect(habitOf([...diary.entries])).toBe(1);
    diary.passes(1, '4');
    expect(step(diary)).toEqual({ code: 'look', passes: 1 });
  });

  it('passes for relief, and those that break up, bring nothing down and ask for no look', () => {
    const diary = new DeskDiary(face());
    plan(diary, 0, 0, 0, 90);
    for (const kind of ['relief', 'break-up', 'relief'] as const) diary.write('pass', { zone: '4', kind, grade: 'rough', angle: 45 });
    expect(step(diary).code).toBe('pass');
  });
});

describe('a straightedge that turns elsewhere than planned', () => {
  const disagree = () => {
    const diary = new DeskDiary(face());
    // The plan holds zone 3 for high; the straightedge bears at end A.
    plan(diary, 0, 0, 48, 0);
    turn(diary, 60, 40);
    return diary;
  };

  it('stops the plan with the question which to believe, and nothing else is asked', () => {
    const diary = disagree();
    const desk = told(diary);
    expect([desk.step.code, desk.next]).toEqual(['which-holds', null]);
    expect(desk.notes.find(({ code }) => code === 'turns-otherwise')?.about).toEqual([50, '1', '3']);
  });

  it('the plan is believed: it goes on; the straightedge: its zone is worked, and the plan is set aside', () => {
    const plan = disagree();
    plan.write('believed', { which: 'plan' });
    expect(step(plan)).toEqual(jasmine.objectContaining({ code: 'pass', zone: '3' }));
    const edge = disagree();
    edge.write('believed', { which: 'straightedge' });
    expect([told(edge).from, step(edge)]).toEqual(['hinge', jasmine.objectContaining({ code: 'pass', zone: '1' })]);
  });

  it('pushed once more where it was planned there is no question; nor where the tries rock', () => {
    const diary = disagree();
    turn(diary, 262, 240);
    expect(step(diary)).toEqual(jasmine.objectContaining({ code: 'pass', zone: '3' }));
    const rocks = new DeskDiary(face());
    plan(rocks, 0, 0, 48, 0);
    rocks.write('hinge', { from: 0, length: 400, a: 60, b: 40, again: { a: 200, b: 40 } });
    expect(told(rocks).notes.map(({ code }) => code)).not.toContain('turns-otherwise');
  });

  it('a slant is seen by no straightedge: an even turn goes with any wedge, a hump does not', () => {
    const diary = new DeskDiary(face());
    plan(diary, 0, 20, 40, 60);
    turn(diary, 283, 117);
    expect(step(diary).code).toBe('pass');
    turn(diary, 60, 50);
    expect(step(diary).code).toBe('which-holds');
  });

  it('a strip that lies just one pass below the straightedge bears, whatever the last bit of the figures says', () => {
    // It rests on the zones 0 and 5: over zone 3 the line stands at 52 µm, 12 above its 40, and 12 is a pass.
    const diary = new DeskDiary(face({ zones: gridZones(400, 60, 8, 1) }));
    plan(diary, 10, 10, 0, 40, 30, 80, 80, 10);
    turn(diary, 263.5516257955155, 174.12720721937643);
    expect(told(diary).notes.map(({ code }) => code)).not.toContain('turns-otherwise');
  });

  it('whatever bows as the plan says turns as the plan says', () => {
    // Pivots of the zones that a rigid straightedge rests on, found anew by trying every line that lies on two of them.
    const restsOn = (heights: readonly number[], at: readonly number[], middle: number): readonly number[] => {
      let best: { readonly zones: readonly number[]; readonly height: number } | undefined;
      for (let i = 0; i < at.length; i++)
        for (let j = i + 1; j < at.length; j++) {
          const line = (x: number) => heights[i] + ((heights[j] - heights[i]) * (x - at[i])) / (at[j] - at[i]);
          if (!at.every((x, k) => heights[k] <= line(x) + 1e-6) || at[i] > middle || at[j] < middle) continue;
          const height = line(middle);
          if (!best || height < best.height) best = { height, zones: at.flatMap((x, k) => (line(x) - heights[k] <= 12 + 1e-9 ? [k] : [])) };
        }
      return best?.zones ?? [];
    };
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 8, maxLength: 8 }), (tens) => {
        const heights = tens.map((ten) => 10 * ten);
        const zones = gridZones(400, 60, 8, 1);
        const at = zones.map((_, i) => 25 + 50 * i);
        const on = restsOn(heights, at, 200);
        // The load of its weight, spread along a line: 1 + t·(x − middle) with no moment left about its middle.
        const [first, second] = on.reduce(([sum, squares], k) => [sum + at[k] - 200, squares + (at[k] - 200) ** 2], [0, 0]);
        const bands = on.map((k) => ({
          ...{ from: 50 * k, to: 50 * k + 50 },
          pressure: on.length > 1 ? Math.max(0, 1 - (first / second) * (at[k] - 200)) : 1,
        }));
        const pivots = pivotsOf(bands, 400);
        fc.pre(pivots !== null && Math.max(...heights) > 0);
        const diary = new DeskDiary(face({ zones }));
        plan(diary, ...heights);
        turn(diary, pivots?.a ?? 0, pivots?.b ?? 0);
        expect(told(diary).notes.map(({ code }) => code)).not.toContain('turns-otherwise');
      }),
      { numRuns: 200 },
    );
  });
});

describe('one instruction at a time', () => {
  it('that it went the wrong way is what comes now, until somebody has looked', () => {
    const diary = new DeskDiary(face());
    plan(diary, 0, 0, 0, 90);
    measure(diary, 40);
    diary.passes(2, '4');
    measure(diary, 60);
    expect([step(diary).code, told(diary).next]).toEqual(['which-end', null]);
    plan(diary, 90, 0, 0, 0);
    expect(step(diary)).toEqual(jasmine.objectContaining({ code: 'pass', zone: '1' }));
  });

  it('no change over three measurements stops the passes', () => {
    const diary = new DeskDiary(face());
    plan(diary, 0, 0, 0, 90);
    for (const value of [40, 41, 40]) {
      measure(diary, value);
      if (value === 41) diary.passes(1, '4');
    }
    expect(step(diary).code).toBe('not-the-metal');
  });

  it('too much blue is blued again, not scraped', () => {
    const diary = new DeskDiary(face({ aim: null }));
    diary.blue();
    const zones = ['1', '2', '3', '4'].map((id) => ({ id, spots: 5, spotsPerSquare: 8, bearingShare: 0.8, area: 6000 }));
    diary.write('print', {
      ...{ picture: null, film: 4, pressed: null, corners: null, threshold: 0.5 },
      result: { spots: 20, spotsPerSquare: 12, bearingShare: 0.8, largestBare: 20, zones },
    });
    expect([step(diary).code, told(diary).notes.map(({ code }) => code)]).toEqual(['blue', jasmine.arrayContaining(['too-much-blue'])]);
  });

  it('a print that the straightedge belies is not worked by', () => {
    const diary = new DeskDiary(face({ aim: null }));
    turn(diary, 262, 250);
    diary.blue();
    const zones = [0.5, 0.05, 0.05, 0.05].map((bearingShare, i) => ({
      ...{ id: String(i + 1), spots: 5, spotsPerSquare: 8, bearingShare, area: 6000 },
    }));
    diary.write('print', {
      ...{ picture: null, film: 4, pressed: null, corners: null, threshold: 0.5 },
      result: { spots: 20, spotsPerSquare: 12, bearingShare: 0.16, largestBare: 20, zones },
    });
    expect(told(diary).notes.map(({ code }) => code)).toContain('print-not-trusted');
    expect([told(diary).from, step(diary)]).toEqual(['hinge', jasmine.objectContaining({ code: 'pass', zone: '3' })]);
  });
});
