import fc from 'fast-check';
import type { PrintResult, Surface } from '@isometra/contract';
import { deskOf, scrapedOf } from './desk.js';
import { middleOf } from './entries.js';
import { entryFaults, standing, surfaceFaults } from './faults.js';
import { endsEvening } from './entries.js';
import { eveningsOf } from '../notebook/evenings.js';
import { learnedPasses } from './hand.js';
import type { DeskStep } from './steps.js';
import { gridZones, joinHeights, nestedZones, planePlan, priceOf, stripMarks, wedgePlan } from './plan.js';
import { deskNoteWords, reminderWords, stepWords, turnedWords } from './words.js';
import { rungsOf } from '../ladder/rungs.js';
import { Diary } from '../testing/heads.js';
import { DeskDiary, face } from '../testing/surface.js';

const shares = (...values: number[]): PrintResult => ({
  spots: Math.round(100 * values.reduce((sum, value) => sum + value, 0)),
  spotsPerSquare: 12,
  bearingShare: values.reduce((sum, value) => sum + value, 0) / values.length,
  largestBare: 20,
  zones: values.map((bearingShare, i) => ({ id: String(i + 1), spots: 5, spotsPerSquare: 8, bearingShare, area: 6000 })),
});
const print = (diary: DeskDiary, result: PrintResult, more: { film?: number; pressed?: 'A' | 'B' } = {}) =>
  diary.write('print', { picture: null, film: more.film ?? 4, pressed: more.pressed ?? null, corners: null, threshold: 0.5, result });
const turn = (diary: DeskDiary, a: number, b: number) => diary.write('hinge', { from: 0, length: 400, a, b });
const plan = (diary: DeskDiary, ...depths: number[]) =>
  diary.write('plan', { depths: depths.map((depth, i) => ({ zone: String(i + 1), depth })), from: 'hand', why: 'as it is' });
const measure = (diary: DeskDiary, value: number, doubt = 4) => diary.write('measure', { value, doubt, roundId: null });
const told = (diary: DeskDiary) => deskOf(diary.surface, diary.entries);
const codes = (diary: DeskDiary) => told(diary).notes.map(({ code }) => code);
const lefts = (diary: DeskDiary) => told(diary).zones.map(({ left }) => left);
const size = (value: number, dimension: string) => `${Math.round(value)} ${dimension === 'length' ? 'mm' : 'µm'}`;

describe('the desk', () => {
  it('an untouched face says what to do first, and nothing about metal', () => {
    const diary = new DeskDiary(face());
    const desk = told(diary);
    expect([desk.step.code, desk.from, desk.next, desk.cycle, desk.forecast]).toEqual(['begin', null, null, 0, null]);
    expect(lefts(diary)).toEqual([null, null, null, null]);
    expect(desk.reminders).toEqual(['burrs', 'wipe']);
  });

  it('a plan is worked off the highest zone first, roughing before finishing, and one more zone with each pass', () => {
    const diary = new DeskDiary(face());
    plan(diary, 0, 12, 24, 46);
    // 46: (46 − 2·5)/12 = 3 roughing, 10 left, 2 finishing. 24: one of 12 and two of 5. 12: two of 5.
    expect(lefts(diary)).toEqual([0, 2, 3, 5]);
    expect(told(diary).step).toEqual({ code: 'pass', zone: '4', grade: 'rough', angle: 45 });
    const order: string[] = [];
    for (let i = 0; i < 30; i++) {
      if (told(diary).step.code === 'look') diary.blue();
      const { step, zones } = told(diary);
      if (step.code !== 'pass') break;
      order.push(step.zone);
      const zone = zones.find((entry) => entry.zone.id === step.zone);
      diary.write('pass', { zone: step.zone, kind: 'whole', grade: step.grade, angle: zone?.angle ?? 0 });
    }
    expect(order.slice(0, 4)).toEqual(['4', '4', '3', '4']);
    expect([...order].sort().join('')).toBe('2233344444');
    expect(told(diary).step.code).toBe('measure');
  });

  it('passes are never more than the depth, whatever was planned and done; they only go down', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 90, noNaN: true }), { minLength: 4, maxLength: 4 }), fc.nat(12), (depths, count) => {
        const diary = new DeskDiary(face());
        plan(diary, ...depths);
        let before = lefts(diary).reduce<number>((sum, left) => sum + (left ?? 0), 0);
        for (let i = 0; i < count; i++) {
          const { step, pass } = told(diary);
          if (step.code !== 'pass') break;
          diary.write('pass', { zone: step.zone, kind: 'whole', grade: step.grade, angle: 45 });
          const now = lefts(diary).reduce<number>((sum, left) => sum + (left ?? 0), 0);
          expect(now).toBeLessThan(before);
          before = now;
          for (const { depth } of told(diary).zones) expect(depth ?? 0).toBeGreaterThanOrEqual(0);
          expect(pass.rough.depth).toBe(12);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('a print in the middle of a plan does not turn the work elsewhere; after it, one that is newer does', () => {
    const diary = new DeskDiary(face());
    plan(diary, 0, 0, 0, 24);
    diary.blue();
    print(diary, shares(0.4, 0.01, 0.01, 0.02));
    expect([told(diary).from, told(diary).next]).toEqual(['plan', '4']);
    for (let { step } = told(diary); step.code === 'pass' || step.code === 'look'; { step } = told(diary))
      if (step.code === 'look') diary.blue();
      else diary.write('pass', { zone: step.zone, kind: 'whole', grade: step.grade, angle: 45 });
    expect([told(diary).step.code, lefts(diary)]).toEqual(['measure', [0, 0, 0, 0]]);
    measure(diary, 3);
    diary.blue();
    print(diary, shares(0.02, 0.4, 0.35, 0.01));
    expect(lefts(diary)).toEqual([0, 1, 1, 0]);
    diary.passes(1, '2');
    expect([told(diary).step.code === 'pass', told(diary).next]).toEqual([true, '3']);
    diary.passes(1, '3');
    expect(told(diary).step.code).withContext('the geometry is met: contact goes on').toBe('blue');
  });

  it('the angle turns by 90 after each pass over a zone, and a pass that is taken back counts for nothing', () => {
    const diary = new DeskDiary(face());
    plan(diary, 0, 0, 0, 46);
    diary.passes(1, '4');
    expect(told(diary).zones[3].angle).toBe(135);
    expect(told(diary).zones[3].left).toBe(4);
    diary.write('withdrawn', {}, told(diary).last?.id ?? null);
    expect(told(diary).zones[3].angle).toBe(45);
    expect(told(diary).zones[3].left).toBe(5);
    expect(standing(diary.entries).length).toBe(1);
  });

  it('relief and breaking up take nothing off a plan', () => {
    const diary = new DeskDiary(face());
    plan(diary, 0, 0, 0, 46);
    diary.write('pass', { zone: '4', kind: 'break-up', grade: 'fine', angle: 45 });
    diary.write('pass', { zone: '4', kind: 'relief', grade: 'rough', angle: 45 });
    expect(told(diary).zones[3].left).toBe(5);
  });

  it('a hump is worked where it is: hinge-only rounds, and it is said how far it moved', () => {
    const diary = new DeskDiary(face());
    turn(diary, 265, 255);
    const desk = told(diary);
    expect([desk.from, desk.turned?.code, desk.step.code === 'pass' && desk.step.zone]).toEqual(['hinge', 'hinge-high', '3']);
    expect(desk.turned?.centre).toBe(260);
    diary.passes(1, '3');
    expect(told(diary).step.code).toBe('blue');
    turn(diary, 225, 215);
    expect(turnedWords(told(diary), (mm) => `${mm} mm`)).toBe('High at 220 mm, 40 mm left of last time.');
    expect(turnedWords(told(diary), (mm) => `${mm} mm`, false)).toBe('High at 220 mm, 40 mm right of last time.');
    const ends = new DeskDiary(face());
    turn(ends, 390, 10);
    expect(
      told(ends)
        .zones.filter(({ left }) => left === 1)
        .map(({ zone }) => zone.id),
    ).toEqual(['1', '4']);
    const even = new DeskDiary(face());
    turn(even, 283, 117);
    expect([told(even).step.code, lefts(even)]).toEqual(['turn-or-blue', [0, 0, 0, 0]]);
  });

  it('what is blue more than the rest is scraped; where all are alike, all of it', () => {
    const diary = new DeskDiary(face()).blue();
    expect(told(diary).step.code).toBe('read-print');
    print(diary, shares(0.05, 0.1, 0.32, 0.11));
    expect(lefts(diary)).toEqual([0, 0, 1, 0]);
    const even = new DeskDiary(face()).blue();
    print(even, shares(0.1, 0.1, 0.1, 0.1));
    expect(lefts(even)).toEqual([1, 1, 1, 1]);
  });

  it('of two pressed ends only what is blue in both is high, and it is said that it rocks', () => {
    const diary = new DeskDiary(face()).blue();
    print(diary, shares(0.3, 0.2, 0.01, 0.0), { pressed: 'A' });
    print(diary, shares(0.0, 0.2, 0.01, 0.3), { pressed: 'B' });
    expect(codes(diary)).toContain('teeters');
    expect(told(diary).notes.find(({ code }) => code === 'teeters')?.about).toEqual(['1', '4']);
    expect(lefts(diary)).toEqual([0, 1, 0, 0]);
  });

  describe('a straightedge that is shorter than the face', () => {
    const bite = (diary: DeskDiary, from: number, ...values: number[]) =>
      diary.write('print', {
        ...{ picture: null, film: 4, pressed: null, corners: null, threshold: 0.5 },
        bite: { from, length: 250 },
        result: shares(...values),
      });
    const short = () => new DeskDiary(face({ reference: { kitId: null, name: 'short edge', length: 250 } })).blue();

    it('what it did not reach is unknown, not low, and another bite is asked for', () => {
      const diary = short();
      bite(diary, 0, 0.05, 0.4, 0.01, 0);
      expect(lefts(diary)).toEqual([0, 1, null, null]);
      expect([told(diary).step.code, codes(diary)]).toEqual(['next-bite', ['reference-short']]);
      bite(diary, 150, 0, 0, 0.02, 0.01);
      expect(told(diary).step.code).withContext('the bites have no zone in common: zone 2 is reached by half only').toBe('next-bite');
    });

    it('bites that bear in their overlap alike are one face; of the overlap what is blue in both', () => {
      const diary = short();
      bite(diary, 0, 0.02, 0.3, 0, 0);
      bite(diary, 100, 0, 0.25, 0.01, 0);
      bite(diary, 150, 0, 0, 0.02, 0.02);
      expect(lefts(diary)).withContext('the last bite has zone 3 in common').toEqual([0, 1, 0, 0]);
      expect([told(diary).step.code, codes(diary)]).toEqual(['pass', []]);
      // 5 spots on each of three zones of 6000 mm², not over what it did not reach.
      expect(told(diary).spots?.perSquare).toBeCloseTo((10 / 12_000) * 645.16, 6);
    });

    it('a step: where only one bite bears in the overlap, what one alone reached is not told', () => {
      const diary = short();
      bite(diary, 0, 0.3, 0.3, 0, 0);
      bite(diary, 100, 0, 0.01, 0.4, 0);
      expect(lefts(diary)).toEqual([null, 1, null, null]);
      expect([told(diary).step.code, codes(diary)]).toEqual(['next-bite', ['bites-differ', 'reference-short']]);
      expect(told(diary).notes[0].about).toEqual(['2']);
    });
  });

  it('a count of one square by eye is good to its lie alone: 12 against 10 to 15 is too close to call', () => {
    const diary = new DeskDiary(face()).blue();
    const result = { spots: 12, spotsPerSquare: 12, bearingShare: null, largestBare: null, zones: [] };
    print(diary, result);
    expect(told(diary).spots).toEqual(jasmine.objectContaining({ verdict: 'unsure', expanded: 3.1 }));
    print(diary, { ...result, spots: 14, spotsPerSquare: 14 });
    expect(told(diary).spots?.verdict).toBe('in');
  });

  it('two bands turn as an even face does and the print goes with it; a misled print is not trusted, unless metal came off between', () => {
    const bands = new DeskDiary(face()).blue();
    print(bands, shares(0, 0.3, 0.3, 0));
    turn(bands, 225, 175);
    expect(codes(bands)).not.toContain('print-not-trusted');
    turn(bands, 380, 20);
    expect(codes(bands)).toContain('print-not-trusted');
    bands.passes(1, '2');
    turn(bands, 380, 20);
    expect(codes(bands)).not.toContain('print-not-trusted');
  });

  it('prints of different films are not compared; a falling count with a rising share is too much blue', () => {
    const film = new DeskDiary(face()).blue();
    print(film, shares(0.1, 0.1, 0.1, 0.1), { film: 3 });
    print(film, shares(0.3, 0.3, 0.3, 0.3), { film: 6 });
    expect(codes(film)).toEqual(['film-differs']);
    const thick = new DeskDiary(face()).blue();
    print(thick, { ...shares(0.1, 0.1, 0.1, 0.1), spots: 60 });
    print(thick, { ...shares(0.3, 0.3, 0.3, 0.3), spots: 40 });
    expect(codes(thick)).toEqual(['too-much-blue']);
  });

  it('the depth of a pass is learned by the lever: the same 10 µm on a short and on a long base', () => {
    const learn = (lever: number) => {
      const diary = new DeskDiary(
        face({ aim: { check: 'saddle-squareness', quantity: 'squareness', unit: 'um/m', wanted: 0, room: 5, lever } }),
      );
      measure(diary, 100 * lever, 1);
      diary.passes(3, '4').passes(2, '3').passes(1, '2');
      measure(diary, 70 * lever, 1);
      return learnedPasses(diary.surface, diary.entries).map(({ depth }) => depth);
    };
    expect(learn(0.35)[0]).toBeCloseTo(10, 9);
    expect(learn(1.06)[0]).toBeCloseTo(10, 9);
  });

  it('a part of what is left that goes each time is said, with how many times more; what jumps about is no trend', () => {
    const trend = (...values: number[]) => {
      const diary = new DeskDiary(
        face({ aim: { check: 'saddle-squareness', quantity: 'squareness', unit: 'um/m', wanted: 0, room: 20, lever: 2 } }),
      );
      for (const value of values) {
        measure(diary, value, 2);
        diary.passes(1, '4');
      }
      return told(diary)
        .notes.filter(({ code }) => code === 'trend')
        .map(({ about }) => about);
    };
    // By pencil: 270, 180, 120, 80: a third goes each time; 53, 36, 24, 16 is four times more until 20.
    expect(trend(270, 180, 120, 80)).toEqual([[33, 4]]);
    expect(deskNoteWords({ code: 'trend', about: [33, 4] }, size)).toBe(
      'A third of what is left goes each time it is measured: about 4 times more until it is there.',
    );
    expect(trend(270, 180, 120)).toEqual([]);
    expect(trend(270, 240, 120, 80)).toEqual([]);
    expect(trend(90, 60, 40, 19))
      .withContext('it is there')
      .toEqual([]);
  });

  it('learns nothing from a third kind among others, from less than the doubt, from the wrong way', () => {
    const learn = (after: number, more?: (diary: DeskDiary) => void) => {
      const diary = new DeskDiary(face());
      measure(diary, 100);
      diary.passes(2, '4');
      more?.(diary);
      measure(diary, after);
      return [told(diary).pass.rough.learned, ...codes(diary)];
    };
    expect(learn(60)).toEqual([1]);
    expect(learn(97)).toEqual([0]);
    expect(learn(140)).toEqual([0, 'grew']);
    expect(learn(60, (diary) => diary.write('pass', { zone: '4', kind: 'blue-only', grade: 'fine', angle: 45 }))).toEqual([0]);
  });

  it('relieved in between it may read worse: that is said, and is no wrong way', () => {
    const diary = new DeskDiary(face());
    measure(diary, 40);
    diary.write('pass', { zone: '2', kind: 'relief', grade: 'rough', angle: 45 });
    measure(diary, 70);
    expect(codes(diary)).toEqual(['worse-by-relief', 'relieved']);
    measure(diary, 100);
    expect(codes(diary)).toContain('grew');
  });

  it('no change over three measurements is said', () => {
    const diary = new DeskDiary(face());
    for (const value of [80, 81, 79]) {
      measure(diary, value);
      diary.passes(1, '4');
    }
    expect(codes(diary)).toContain('stalled');
  });

  it('forecasts evenings with a range, and says afterwards how far it was off', () => {
    const diary = new DeskDiary(face({ evening: { session: 25, setUp: 20, cycle: 25 } }));
    plan(diary, 0, 0, 0, 36);
    const { forecast } = told(diary);
    // 36: two of 12, two of 5.
    expect(forecast?.evenings.expected).toBe(4);
    expect(forecast?.evenings.low).toBeLessThanOrEqual(4);
    expect(forecast?.evenings.high).toBeGreaterThan(4);
    for (let i = 0; i < 5; i++) {
      diary.later(24 * 60);
      if (i === 2) continue;
      if (told(diary).step.code === 'look') measure(diary, 30 - i);
      const { step } = told(diary);
      if (step.code === 'pass') diary.write('pass', { zone: step.zone, kind: 'whole', grade: step.grade, angle: 45 });
      diary.write('done', {});
    }
    expect(told(diary).hindsight).toEqual({ expected: 4, took: 4 });
    expect(eveningsOf(standing(diary.entries), endsEvening).length).toBe(5);
  });

  it('minutes count themselves, from the first touch to the last of the evening', () => {
    const diary = new DeskDiary(face());
    diary.passes(3, '1');
    diary.later(30).passes(1, '2');
    expect(told(diary).minutesTonight).toBe(33);
    expect(told(diary).passesTonight).toBe(4);
    diary.write('done', {});
    expect([told(diary).minutesTonight, told(diary).passesTonight]).toEqual([0, 0]);
    expect(told(diary).reminders).toContain('chips');
  });

  it('a liner that has less to give than is to come off is said before it is gone', () => {
    const diary = new DeskDiary(face({ material: 'liner', liner: { thickness: 1500, keep: 1100 } }));
    plan(diary, 0, 0, 0, 350);
    expect(codes(diary)).not.toContain('liner-ends');
    expect(told(diary).linerLeft).toBe(400);
    diary.passes(10, '4');
    expect(told(diary).linerLeft).toBe(280);
    plan(diary, 0, 0, 0, 350);
    expect(codes(diary)).toContain('liner-ends');
  });

  it('a bearing shell must lock without shim before it is scraped, and again before it is measured', () => {
    const shell = { shell: { diameter: 80 } };
    const diary = new DeskDiary(
      face({ ...shell, aim: { check: 'spindle-play', quantity: 'liftFront', unit: 'um', wanted: 20, room: 10, lever: 1 } }),
    );
    const step = () => told(diary).step.code;
    expect([step(), told(diary).reminders[0]]).toEqual(['lock-test', 'lock-test']);
    diary.write('lock', { locks: false });
    expect(step()).toBe('joint-faces');
    diary.write('lock', { locks: true });
    expect(step()).toBe('begin');
    plan(diary, 5, 5, 5, 5);
    expect(told(diary).reminders).not.toContain('lock-test');
    diary.passes(1, '1', '2', '3', '4');
    expect(step()).toBe('lock-test');
    diary.write('lock', { locks: true });
    expect(step()).toBe('measure');
    expect(reminderWords('lock-test')).toContain('joint faces are proud');
    expect(entryFaults(diary.entries[0], face(), []).map(({ path }) => path)).toEqual(['kind']);
  });

  it('prints with the lower and with both halves clamped are not compared', () => {
    const diary = new DeskDiary(face({ shell: { diameter: 80 } }));
    const blue = (clamped: 'lower' | 'both') => diary.write('blue', { film: 4, dye: false, pressed: null, clamped });
    blue('lower');
    print(diary, shares(0.1, 0.1, 0.1, 0.1));
    blue('lower');
    print(diary, shares(0.1, 0.1, 0.2, 0.1));
    expect(codes(diary)).not.toContain('clamped-differs');
    blue('both');
    print(diary, { ...shares(0.3, 0.3, 0.3, 0.3), spots: 4 });
    expect(codes(diary)).toContain('clamped-differs');
    expect(codes(diary)).not.toContain('too-much-blue');
  });

  it('two tries at one end that lie more than a tenth apart tell nothing, and are said', () => {
    const diary = new DeskDiary(face());
    diary.write('hinge', { from: 0, length: 400, a: 250, b: 240, again: { a: 300, b: 236 } });
    expect([codes(diary), lefts(diary), told(diary).step.code]).toEqual([['rocks'], [0, 0, 0, 0], 'turn-again']);
    diary.write('hinge', { from: 0, length: 400, a: 250, b: 240, again: { a: 270, b: 240 } });
    expect([codes(diary), lefts(diary), told(diary).turned?.centre]).toEqual([[], [0, 0, 1, 0], 250]);
    const far = diary.write('hinge', { from: 0, length: 400, a: 250, b: 240, again: { a: 470, b: 240 } });
    expect(entryFaults(far, diary.surface, []).map(({ path }) => path)).toEqual(['content.again']);
  });

  it('a face that is held back loses nothing', () => {
    const diary = new DeskDiary(face({ heldBack: true }));
    plan(diary, 0, 0, 0, 40);
    expect(told(diary).step.code).toBe('held-back');
    expect(told(diary).next).toBeNull();
    const pass = diary.passes(1, '4').entries[1];
    expect(entryFaults(pass, diary.surface, [])[0].message).toContain('held back');
    expect(entryFaults(pass, { ...diary.surface, heldBack: false }, [])).toEqual([]);
  });

  it('the full check is priced apart: after every third pass, and at the end', () => {
    const evening = { session: 150, setUp: 20, cycle: 25, check: 180 };
    const diary = new DeskDiary(face({ evening }));
    plan(diary, 0, 0, 0, 46);
    // Five passes: after the third and at the end.
    expect(told(diary).forecast?.checks).toEqual({ count: 2, minutes: 360 });
    const often = new DeskDiary(face({ evening: { ...evening, every: 1 } }));
    plan(often, 0, 0, 0, 46);
    expect(told(often).forecast?.checks?.count).toBe(5);
    const none = new DeskDiary(face());
    plan(none, 0, 0, 0, 46);
    expect(told(none).forecast?.checks).toBeNull();
  });

  it('what finishing for contact shifts is learned, and where to stop the alignment for it is said', () => {
    const diary = new DeskDiary(face());
    const finish = () => diary.write('pass', { zone: '2', kind: 'blue-only', grade: 'fine', angle: 45 });
    measure(diary, 60);
    finish();
    measure(diary, 50);
    expect(told(diary).contact).withContext('still aligning: that is no shift').toBeNull();
    diary.write('state', { state: 'contact', why: 'near enough' });
    finish();
    measure(diary, 62);
    expect(told(diary).contact).toEqual(jasmine.objectContaining({ shift: 12, stopAt: -12, learned: 1 }));
    finish();
    measure(diary, 76);
    expect(told(diary).contact?.shift).toBe(13);
    const note = told(diary).notes.find(({ code }) => code === 'contact-shifts');
    expect(note?.about).toEqual([13, -13]);
    expect(deskNoteWords(note ?? { code: 'rocks', about: [] }, size, (value) => `${value} µm/m`)).toContain(
      'Stop the alignment at -13 µm/m',
    );
    const still = new DeskDiary(face());
    still.write('state', { state: 'contact', why: 'near enough' });
    measure(still, 6);
    still.write('pass', { zone: '2', kind: 'blue-only', grade: 'fine', angle: 45 });
    measure(still, 8);
    expect(codes(still)).not.toContain('contact-shifts');
  });

  it('a zone without a pass for ten blues, a reference that is too short, polishing too early are said', () => {
    const diary = new DeskDiary(face({ reference: { kitId: null, name: 'short edge', length: 250 } }));
    for (let i = 0; i < 10; i++) diary.blue().passes(1, '1', '2', '3');
    measure(diary, 90);
    diary.write('state', { state: 'contact', why: 'looks good' });
    expect(codes(diary)).toEqual(jasmine.arrayWithExactContents(['polished-early', 'forgotten', 'reference-short']));
    expect(told(diary).notes.find(({ code }) => code === 'forgotten')?.about).toEqual(['4']);
  });

  it('true and bearing it is to be accepted; bearing alone is not enough', () => {
    const diary = new DeskDiary(face()).blue();
    print(diary, { ...shares(0, 0, 0, 0), spotsPerSquare: 14 });
    measure(diary, 60);
    expect(told(diary).step.code).toBe('plan');
    measure(diary, 6);
    expect(told(diary).spots?.verdict).toBe('in');
    expect(told(diary).step.code).toBe('accept');
    diary.write('state', { state: 'accept', why: 'squareness 6, 14 spots' });
    expect(told(diary).step.code).toBe('accepted');
  });

  it('a face that is put away stays as it was written down, and nothing more is', () => {
    const diary = new DeskDiary(face({ putAway: true }));
    plan(diary, 0, 0, 0, 40);
    expect(told(diary).step.code).toBe('put-away');
    expect(told(diary).next).toBeNull();
    const done = diary.write('done', {});
    expect(entryFaults(done, diary.surface, [])[0].message).toContain('archived');
    expect(entryFaults(done, { ...diary.surface, putAway: false }, [])).toEqual([]);
  });

  it('says it in words: at most eight for what comes now, and a sentence for everything else', () => {
    const steps: DeskStep[] = [
      ...(
        [
          ...(['begin', 'measure', 'blue', 'read-print', 'plan', 'accepted', 'accept', 'turn-or-blue'] as const),
          ...(['turn-again', 'next-bite', 'held-back', 'put-away', 'lock-test', 'joint-faces'] as const),
          ...(['which-holds', 'which-end', 'not-the-metal', 'other-flank'] as const),
        ] as const
      ).map((code) => ({ code })),
      { code: 'pass', zone: '12', grade: 'fine', angle: 135 },
      { code: 'look', passes: 1 },
      { code: 'look', passes: 2 },
    ];
    for (const shell of [false, true])
      for (const step of steps) expect(stepWords(step, shell).split(' ').length).withContext(stepWords(step, shell)).toBeLessThanOrEqual(8);
    expect(stepWords({ code: 'blue' }, true)).toBe('Blue the spindle again, clamp, turn it.');
    expect(reminderWords('wipe')).toContain('one grain');
    expect(deskNoteWords({ code: 'liner-ends', about: [280, 350] }, size)).toContain('280 µm to give, and 350 µm');
    expect(deskNoteWords({ code: 'print-not-trusted', about: [225, 175] }, size)).toContain('225 mm and 175 mm');
    for (const code of [
      'stalled',
      'grew',
      'teeters',
      'film-differs',
      'too-much-blue',
      'polished-early',
      'forgotten',
      'reference-short',
      'reserve',
      'rocks',
      'clamped-differs',
      'contact-shifts',
      'wrong-flank',
      'overshot',
      'turns-otherwise',
      'worse-by-relief',
      'bites-differ',
    ] as const)
      expect(deskNoteWords({ code, about: ['3', '4'] }, size)).toMatch(/[.?]$/);
  });
});

describe('metal that came off', () => {
  it('makes stale what the face is scraped true by; a relief everything that is read on its casting', () => {
    const diary = new DeskDiary(face({ part: 'headstock' }));
    const checks = () => scrapedOf([{ ...diary.surface, entries: diary.entries }]).map(({ check }) => check);
    expect(checks()).toEqual([]);
    diary.passes(1, '1');
    expect(checks()).toEqual(['saddle-squareness']);
    diary.write('pass', { zone: '2', kind: 'relief', grade: 'rough', angle: 45 });
    expect(checks()).toEqual(jasmine.arrayWithExactContents(['saddle-squareness', 'spindle-axis', 'chuck-test-cut']));
    expect(codes(diary)).toContain('relieved');
    diary.write('withdrawn', {}, diary.entries[1].id);
    expect(checks()).toEqual(['saddle-squareness']);
  });

  it('is a move on the ladder: the rung is read again, a round after it counts', () => {
    const days = new Diary();
    const rounds = [days.round('saddle-squareness', 'in'), days.round('cross-slide-squareness', 'in')];
    const states = (at: string) => {
      const rungs = rungsOf('engine-lathe', rounds, undefined, { scraped: [{ check: 'saddle-squareness', at }] });
      return ['saddle-squareness', 'cross-slide-squareness'].map((id) => rungs.find(({ check }) => check.id === id)?.stale?.code);
    };
    expect(states(Diary.at(9))).toEqual(['moved', 'upset']);
    expect(states('2020-01-01T00:00:00.000Z')).toEqual([undefined, undefined]);
  });
});

describe('what a face is', () => {
  it('cannot be upside down, off itself, or thinner than it must stay', () => {
    const wrong = face({
      target: { low: 15, high: 10 },
      material: 'liner',
      zones: [
        ...gridZones(400, 60, 2, 1),
        {
          id: '2',
          use: 'ignore',
          outline: [
            { x: 0, y: 0 },
            { x: 500, y: 0 },
            { x: 1, y: 1 },
          ],
        },
      ],
      aim: { check: 'saddle-squareness', quantity: 'beauty', unit: 'um/m', wanted: 0, room: 1, lever: 1 },
    });
    expect(surfaceFaults(wrong).map(({ path }) => path)).toEqual(['zones', 'zones[2].outline', 'target.low', 'liner', 'aim.quantity']);
    expect(surfaceFaults(face({ material: 'liner', liner: { thickness: 1000, keep: 1200 } }))[0].path).toBe('liner.keep');
    expect(surfaceFaults(face())).toEqual([]);
    expect(
      surfaceFaults(face({ zones: gridZones(400, 60, 1, 1).map((zone) => ({ ...zone, use: 'ignore' as const })) }))[0].message,
    ).toContain('no zone is to bear');
  });

  it('an entry speaks of what is there', () => {
    const diary = new DeskDiary(face({ aim: null }));
    const other = diary.write('measure', { value: 1, doubt: 1, roundId: null });
    expect(entryFaults(other, diary.surface, []).map(({ path }) => path)).toEqual(['kind']);
    const pass = diary.passes(1, '9').entries[1];
    expect(entryFaults(pass, diary.surface, [])[0].message).toBe('the face has no zone 9');
    expect(entryFaults({ ...pass, supersedes: crypto.randomUUID() }, diary.surface, []).map(({ path }) => path)).toContain('supersedes');
    expect(entryFaults({ ...pass, supersedes: other.id }, diary.surface, diary.entries).map(({ path }) => path)).toContain('kind');
    expect(entryFaults(turn(diary, 500, 100), diary.surface, [])[0].path).toBe('content.a');
  });
});

describe('plans', () => {
  const strips = (part: Partial<Surface> = {}) => face({ ...part });

  it('a wedge leaves its low end alone and takes the rest by where each zone lies, on the side that stands high', () => {
    expect(wedgePlan(strips(), { wedge: 48, high: 'right' }).depths.map(({ depth }) => depth)).toEqual([0, 12, 24, 36]);
    expect(wedgePlan(strips(), { wedge: 48, high: 'left' }).depths.map(({ depth }) => depth)).toEqual([36, 24, 12, 0]);
    const grid = face({ zones: gridZones(400, 60, 1, 3) });
    const across = (high: 'near' | 'far') => wedgePlan(grid, { wedge: 30, high }).depths.map(({ depth }) => Math.round(depth));
    expect(across('near')).toEqual([0, 10, 20]);
    expect(across('far')).toEqual([20, 10, 0]);
  });

  it('both ways at once are one print, and never more work than one after the other', () => {
    const grid = face({ width: 400, height: 400, zones: gridZones(400, 400, 8, 8), passes: { rough: 10, fine: 10, keepFine: 0 } });
    const [along, across] = [{ wedge: 100, high: 'right' } as const, { wedge: 100, high: 'far' } as const];
    const both = priceOf(grid, wedgePlan(grid, along, across)).zonePasses;
    const apart = priceOf(grid, wedgePlan(grid, along)).zonePasses + priceOf(grid, wedgePlan(grid, across)).zonePasses;
    expect(both).toBeLessThanOrEqual(apart * 1.05);
    // The corner that is low both ways is left alone.
    const { depths } = wedgePlan(grid, along, across);
    expect(depths.reduce((low, entry) => (entry.depth < low.depth ? entry : low)).zone).toBe('57');
    expect(priceOf(face(), { depths: [{ zone: '4', depth: 46 }], from: 'hand', why: '' })).toEqual({
      zonePasses: 5,
      cycles: 5,
      evenings: 1,
    });
  });

  it('a wedge in strips is marked from its high end, the first pass the shortest', () => {
    // 30 µm over 400 mm in passes of 10: strips of 133 mm, from half a strip.
    const { marks, tilt } = stripMarks(face(), { wedge: 30, high: 'right' }, 10);
    expect(marks.map(Math.round)).toEqual([67, 200, 333]);
    expect(tilt).toBeGreaterThan(28);
    expect(stripMarks(face(), { wedge: 4, high: 'left' }, 10).marks).toEqual([]);
    expect(Math.max(...stripMarks(face(), { wedge: 30, high: 'near' }, 10).marks)).toBeLessThan(60);
  });

  it('a tilt that alignment asks for leaves only the height free, and a hollow costs nothing more', () => {
    const flat = face({ zones: gridZones(400, 60, 4, 1) });
    const asked = planePlan(flat, { 1: 0, 2: 0, 3: 0, 4: 0 }, 0, { wedge: 40, high: 'right' });
    expect(asked?.plan.depths.map(({ depth }) => Math.round(depth))).toEqual([30, 20, 10, 0]);
    const other = planePlan(flat, { 1: 0, 2: 0, 3: 0, 4: 0 }, 0, { wedge: 40, high: 'left' });
    expect(other?.plan.depths.map(({ depth }) => Math.round(depth))).toEqual([0, 10, 20, 30]);
    const hollow = planePlan(flat, { 1: 0, 2: -15, 3: 0, 4: 0 }, 0, { wedge: 40, high: 'right' });
    expect(hollow?.plan.depths.map(({ depth }) => Math.round(depth))).toEqual([30, 5, 10, 0]);
    const read = { 1: 30, 2: 20, 3: 10, 4: 0 };
    const bare = (slope?: 'none') => planePlan(flat, read, 0, slope)?.plan.depths.map(({ depth }) => Math.round(depth));
    expect([bare(), bare('none')]).toEqual([
      [0, 0, 0, 0],
      [30, 20, 10, 0],
    ]);
    expect(planePlan(flat, {}, 0, { wedge: 40, high: 'right' })).toBeUndefined();
  });

  it('heights of two bites with a step are one profile: without tilt the step comes off, and only on its side', () => {
    const surface = face({ zones: gridZones(400, 60, 8, 1) });
    // The second bite lay 40 µm higher and leaned by 0.2 µm/mm.
    const lay = (zone: number, height: number) => height - 40 - 0.2 * (50 * zone - 25);
    const joined = joinHeights(
      surface,
      { 1: 0, 2: 0, 3: 0, 4: 0, 5: 15 },
      { 4: lay(4, 0), 5: lay(5, 15), 6: lay(6, 15), 7: lay(7, 15), 8: lay(8, 15) },
      1,
    );
    expect(Object.values(joined?.heights ?? {}).map(Math.round)).toEqual([0, 0, 0, 0, 15, 15, 15, 15]);
    const plan = joined && planePlan(surface, joined.heights, 0, 'none');
    expect(plan?.plan.depths.map(({ depth }) => Math.round(depth))).toEqual([0, 0, 0, 0, 15, 15, 15, 15]);
    // By what the joint leaves in doubt nothing is taken off that may not be there.
    const careful = joined && planePlan(surface, joined.heights, joined.doubts, 'none');
    expect(careful?.plan.depths[7].depth).toBeLessThan(15);
    expect(joinHeights(surface, { 1: 0, 2: 0 }, { 2: 0, 3: 0 }, 1)).toBeUndefined();
  });

  it('a noise-only plate needs no metal; a hollow in the middle costs nothing; one that the plane rests on has a price', () => {
    const surface = face({ zones: gridZones(300, 300, 3, 3), width: 300, height: 300 });
    const heights = (values: readonly number[]) => Object.fromEntries(values.map((value, i) => [String(i + 1), value]));
    const noise = planePlan(surface, heights([1, -1, 0, 1, 0, -1, 1, 0, -1]), 3);
    expect(noise?.plan.depths.every(({ depth }) => depth < 1e-6)).toBe(true);
    const hollow = planePlan(surface, heights([10, 10, 10, 10, 0, 10, 10, 10, 10]), 0);
    expect(hollow?.plan.depths.map(({ depth }) => Math.round(depth))).not.toContain(11);
    expect(hollow?.prices.map(({ zone }) => zone)).toContain('5');
    const corner = planePlan(surface, heights([0, 10, 10, 10, 10, 10, 10, 10, 10]), 0);
    expect(corner?.plan.depths.every(({ depth }) => depth >= 0)).toBe(true);
    expect(planePlan(surface, { 1: 0, 2: 3 }, 1)).toBeUndefined();
  });

  it('grids are numbered as they are read, nested zones from the outside in, and all lie on the face', () => {
    const grid = gridZones(400, 100, 4, 2);
    expect(grid.map(({ id }) => id).join('')).toBe('12345678');
    expect(middleOf(grid[5])).toEqual({ x: 150, y: 75 });
    expect(surfaceFaults(face({ width: 400, height: 100, zones: grid }))).toEqual([]);
    expect(surfaceFaults(face({ width: 400, height: 100, zones: nestedZones(400, 100, 4) }))).toEqual([]);
  });
});
