import { readInstrument, type Instrument } from '@isometra/core';
import { openShop, show } from '../testing/fake-shop';
import { NodStrokes } from './nod-strokes';
import { nodSides } from './nod-words';

const dial = (more: object = {}) => readInstrument({ kind: 'lever', graduation: '2 um', sense: 1, ...more }).instrument as Instrument;
/** A head on a pin P behind: each side falls by its own distance from it. */
const turned = (now: { operator: number; column: number }, by: number, pivot: number, radius: number) => ({
  operator: now.operator + (by * (pivot + radius)) / 1000,
  column: now.column + (by * (pivot - radius)) / 1000,
});
const BEFORE = { operator: 60, column: -20 };

describe('the nod of a head', () => {
  const open = async (inputs: Record<string, unknown> = {}) => {
    await openShop([]);
    return show(NodStrokes, { before: BEFORE, radius: 110, instrument: dial(), limit: 65, ...inputs });
  };

  it('with the pin known, says at which figure one move is enough, past zero; the other ways beside it', async () => {
    const panel = await open({ told: 450 });
    // 80 µm over 220 mm: your side falls by 80·(450 + 110)/220 = 203.6, from 60 to −143.6 µm: −72 divisions of 2.
    expect(panel.text()).toContain('turn until your side reads -72 div');
    expect(panel.text()).toContain('450 mm behind it, from the set-up');
    expect(panel.text()).toMatch(/One move past zero in after one round/);
    // (450 − 110)/560 of it is left each round: 80, 48.6, 29.5, 17.9, 10.9 of 14.3 µm.
    expect(panel.text()).toMatch(/zero the other, again in after 4 rounds/);
    expect(panel.text()).toMatch(/watched side in after 8 rounds/);
  });

  it('with the pin unknown, learns it from one stroke with nothing tightened', async () => {
    const panel = await open();
    expect(panel.text()).toContain('Where it lies is not known. One stroke teaches it');
    const after = turned(BEFORE, -200, 450, 110);
    let sent: unknown;
    panel.fixture.componentInstance.changed.subscribe((nod) => (sent = nod));
    await panel.type('Your side now reads', 'up a bit');
    await panel.press('Add this stroke');
    expect(panel.text()).toContain('"up a bit" is no reading of this dial. Example: -13.5 div');
    await panel.type('Your side now reads', `${after.operator / 2} div`);
    await panel.type('Column side now reads', `${after.column / 2} div`);
    await panel.press('Add this stroke');
    panel.fixture.componentRef.setInput('nod', sent);
    await panel.fixture.whenStable();
    // −200 µm/m of 363.6: 163.6 are left, 36 µm; your side at −52, to fall by 36·560/220 = 91.6 more: −143.6 again.
    expect(panel.text()).toMatch(/450 mm behind it, ± \d+ mm, from these strokes/);
    expect(panel.text()).toContain('turn until your side reads -72 div');
    await panel.press('undo the last one');
    expect(sent).toEqual(jasmine.objectContaining({ sides: [BEFORE] }));
  });

  it('a stroke that changed next to nothing teaches nothing', async () => {
    const nod = { radius: 110, doubt: 1, sides: [BEFORE, { operator: 59, column: -20 }] };
    expect((await open({ nod })).text()).toContain('it teaches nothing. Make a larger one.');
  });

  // 102 divisions for your side, 62 for the column side.
  for (const [range, words] of [
    [80, 'Watch the column side: turn until it reads -72 div'],
    [50, 'or make two strokes'],
    [200, 'turn until your side reads'],
  ] as const)
    it(`on a dial of ${range} divisions: ${words}`, async () => {
      expect((await open({ told: 450, instrument: dial({ range }) })).text()).toContain(words);
    });

  it('a pin within the sweep is said, and nothing is promised of going round and round', async () => {
    const text = (await open({ told: 80 })).text();
    expect(text).toContain('The pivot is within the sweep');
    expect(text).toContain('nothing can be promised');
  });

  it('what its strokes taught lands within a doubt, told beforehand', async () => {
    const nod = { radius: 110, doubt: 6, sides: [BEFORE, turned(BEFORE, -250, 450, 110)] };
    expect((await open({ nod, limit: 30 })).text()).toContain('one stroke more teaches the pin better');
  });

  it('counts only sides of one zero, the latest', () => {
    const row = (angle: number, zero: number, value: number) => ({ keys: { angle, zero }, value });
    const rows = [row(270, 1, 5), row(90, 1, 1), row(270, 2, 8), row(0, 2, 3)];
    expect(nodSides(rows, ({ value }) => value)).toEqual({ operator: 5, column: 1 });
    expect(nodSides([...rows, row(90, 2, 2)], ({ value }) => value)).toEqual({ operator: 8, column: 2 });
    expect(nodSides([row(270, 1, 5), row(90, 2, 1)], ({ value }) => value)).toBeNull();
  });
});
