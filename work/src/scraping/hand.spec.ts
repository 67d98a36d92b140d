import type { DeskEntry } from '@isometra/contract';
import { deskOf, learnedOn } from './desk.js';
import { learnedPasses } from './hand.js';
import { DeskDiary, face } from '../testing/surface.js';

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
