import fc from 'fast-check';
import type { DeskEntry } from '@isometra/contract';
import { deskOf, learnedOn } from './desk.js';
import { learnedPasses } from './hand.js';
import { gridZones, wedgePlan } from './plan.js';
import { DeskDiary, face } from '../testing/surface.js';

const AIM = { check: 'saddle-squareness', quantity: 'squareness', unit: 'um/m', wanted: 0, room: 20 };

/** Entries of one diary, made by somebody. */
class Evenings extends DeskDiary {
  private value = 1000;

  /** Two passes over zone 4 by somebody with a blade, that really took so much each, between two measurements. */
  bout(by: string, blade: string | null, really: number, kind: 'whole' | 'blue-only' = 'whole', grade: 'rough' | 'fine' = 'rough'): this {
    if (blade !== null) this.write('blade', { name: blade, stroke: 12 });
    this.measure();
    for (let i = 0; i < 2; i++) {
      this.write('pass', { zone: '4', kind, grade, angle: 45 });
      this.entries[this.entries.length - 1] = { ...this.entries[this.entries.length - 1], by };
    }
    this.value -= 2 * really * (this.surface.aim?.lever ?? 1);
    return this.measure();
  }
  private measure(): this {
    this.write('measure', { value: this.value, doubt: 1, roundId: null });
    return this;
  }
}
const passOf = (diary: DeskDiary, by: string, elsewhere: Parameters<typeof deskOf>[2] = {}) =>
  deskOf(diary.surface, diary.entries, { ...elsewhere, by }).pass.rough;

describe('the depth of a pass', () => {
  it('is that of the person and the blade: a heavy hand tells nothing of a light one', () => {
    const diary = new Evenings(face()).bout('HB', 'carbide 40', 15).bout('RM', 'carbide 40', 9).bout('RM', 'high-speed steel', 6);
    expect(passOf(diary, 'HB')).toEqual(jasmine.objectContaining({ depth: 15, learned: 1, whose: 'person' }));
    expect(passOf(diary, 'RM')).toEqual(jasmine.objectContaining({ depth: 6, whose: 'blade' }));
    diary.write('blade', { name: 'carbide 40', stroke: 12 });
    expect(passOf(diary, 'RM')).toEqual(jasmine.objectContaining({ depth: 9, whose: 'blade' }));
    expect(passOf(diary, 'HB')).toEqual(jasmine.objectContaining({ depth: 15, whose: 'blade' }));
    // Nobody has measured a third one: what anybody takes.
    expect(passOf(diary, 'XX')).toEqual(jasmine.objectContaining({ depth: 9, learned: 3, whose: 'anybody' }));
    expect(passOf(new Evenings(face()), 'XX')).toEqual(jasmine.objectContaining({ depth: 12, learned: 0, whose: 'nobody' }));
  });

  it('over the blue only it is another than over the whole zone, and each took what it took', () => {
    const diary = new Evenings(face()).bout('RM', null, 12).bout('RM', null, 3, 'blue-only');
    expect(learnedPasses(diary.surface, diary.entries).map(({ depth, over }) => [depth, over])).toEqual([
      [12, 'whole'],
      [3, 'blue-only'],
    ]);
    diary.write('plan', { depths: [{ zone: '4', depth: 60 }], from: 'hand', why: 'as it is' });
    const depth = () => deskOf(diary.surface, diary.entries, { by: 'RM' }).zones[3].depth;
    diary.write('pass', { zone: '4', kind: 'whole', grade: 'rough', angle: 45 });
    expect(depth()).toBeCloseTo(48, 9);
    diary.write('pass', { zone: '4', kind: 'blue-only', grade: 'rough', angle: 45 });
    expect(depth()).toBeCloseTo(45, 9);
  });

  it('learned on one face it holds on the next one of the same metal, and on no other', () => {
    const before = new Evenings(face()).bout('RM', null, 9).bout('RM', null, 8).bout('RM', null, 7);
    const elsewhere = learnedOn([{ ...before.surface, entries: before.entries as DeskEntry[] }]);
    expect(elsewhere.length).toBe(3);
    expect(passOf(new Evenings(face()), 'RM', { elsewhere }).depth).toBe(8);
    expect(passOf(new Evenings(face({ material: 'bronze' })), 'RM', { elsewhere }).depth).toBe(12);
  });

  it('off a wedge is told by the slant of all passes, whichever zones had them', () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat(3), { minLength: 6, maxLength: 6 }),
        fc.double({ min: 6, max: 20, noNaN: true }),
        fc.constantFrom('left' as const, 'right' as const),
        (counts, really, high) => {
          const zones = gridZones(480, 60, 6, 1);
          const surface = face({ width: 480, zones, aim: { ...AIM, lever: 1000 / 480 } });
          const diary = new DeskDiary(surface);
          const places = zones.map((_, i) => 40 + 80 * i - 240);
          const heights = places.map((x) => ((high === 'left' ? -1 : 1) * x * 200) / 480);
          const squareness = () =>
            ((high === 'left' ? -1 : 1) * 1e3 * places.reduce((sum, x, i) => sum + x * heights[i], 0)) /
            places.reduce((sum, x) => sum + x * x, 0);
          diary.write('measure', { value: squareness(), doubt: 1, roundId: null });
          diary.write('plan', wedgePlan(surface, { wedge: 200, high }));
          counts.forEach((count, i) => {
            diary.passes(count, zones[i].id);
            heights[i] -= count * really;
          });
          diary.write('measure', { value: squareness(), doubt: 1, roundId: null });
          for (const { depth } of learnedPasses(surface, [...diary.entries])) expect(depth).toBeCloseTo(really, 6);
        },
      ),
      { numRuns: 100 },
    );
  });

  describe('of two grades at once', () => {
    /** Passes of a hand that takes 9.4 and 4.3 µm, measured before and after to 1 µm. */
    const bouts = (diary: Evenings, ...counts: readonly (readonly [number, number])[]): Evenings => {
      let value = 1000;
      const measure = () => diary.write('measure', { value, doubt: 1, roundId: null });
      measure();
      for (const [rough, fine] of counts) {
        for (let i = 0; i < rough + fine; i++)
          diary.write('pass', { zone: '4', kind: 'whole', grade: i < rough ? 'rough' : 'fine', angle: 45 });
        value -= 2 * (rough * 9.4 + fine * 4.3);
        measure();
      }
      return diary;
    };
    const both = (diary: DeskDiary) => {
      const { rough, fine } = deskOf(diary.surface, diary.entries, { by: 'RM' }).pass;
      return [rough, fine];
    };

    it('both are told by least squares, the more bouts the nearer', () => {
      const [rough] = both(bouts(new Evenings(face()), [3, 1]));
      // One equation for two: what is usual of each is moved by what it had part in, and is nearer than before.
      expect(Math.abs(rough.depth - 9.4)).toBeLessThan(Math.abs(12 - 9.4));
      expect(rough).toEqual(jasmine.objectContaining({ learned: 1, whose: 'person' }));
      const [more, fine] = both(bouts(new Evenings(face()), [3, 1], [1, 4], [4, 1], [1, 5]));
      expect(more.depth).toBeCloseTo(9.4, 0);
      expect(fine.depth).toBeCloseTo(4.3, 0);
    });

    it('what was counted stays counted; a grade that was told alone is not moved', () => {
      const diary = new Evenings(face());
      diary.write('plan', { depths: [{ zone: '4', depth: 90 }], from: 'hand', why: 'as it is' });
      bouts(diary, [3, 1]);
      expect(deskOf(diary.surface, diary.entries, { by: 'RM' }).zones[3].depth).toBeCloseTo(90 - 3 * 12 - 5, 9);
      const alone = new Evenings(face()).bout('RM', null, 9);
      const told = both(alone)[0].depth;
      bouts(alone, [2, 2]);
      expect(both(alone)[0].depth).toBeCloseTo(told, 9);
    });

    it('a measurement that was off makes no pass cut nothing', () => {
      const diary = bouts(new Evenings(face()), [2, 2]);
      const last = diary.entries[diary.entries.length - 1];
      diary.entries[diary.entries.length - 1] = { ...last, content: { value: 997, doubt: 0.1, roundId: null } } as DeskEntry;
      for (const { depth } of both(diary)) expect(depth).toBeGreaterThan(1);
    });
  });

  it('of two kinds at once, of two grades at once nothing is learned; of two people at once what anybody takes', () => {
    const mixed = new Evenings(face());
    mixed.write('measure', { value: 100, doubt: 1, roundId: null });
    mixed.write('pass', { zone: '4', kind: 'whole', grade: 'rough', angle: 45 });
    mixed.write('pass', { zone: '4', kind: 'blue-only', grade: 'rough', angle: 45 });
    mixed.write('measure', { value: 60, doubt: 1, roundId: null });
    expect(learnedPasses(mixed.surface, mixed.entries)).toEqual([]);
    const two = new Evenings(face());
    two.write('measure', { value: 100, doubt: 1, roundId: null });
    two.passes(2, '4');
    two.entries[1] = { ...two.entries[1], by: 'HB' };
    two.write('measure', { value: 60, doubt: 1, roundId: null });
    expect(learnedPasses(two.surface, two.entries)).toEqual([jasmine.objectContaining({ by: null, depth: 10 })]);
    expect(passOf(two, 'HB')).toEqual(jasmine.objectContaining({ depth: 10, whose: 'anybody' }));
  });
});
