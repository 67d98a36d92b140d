import { CHECKS } from '@isometra/core';
import { Settings } from '../data/settings';
import { TestBed } from '@angular/core/testing';
import { openShop, show } from '../testing/fake-shop';
import { SineSetting } from './sine-setting';

const STOCK = [
  { thickness: '0.1 mm', count: 4 },
  { thickness: '0.002 mm', count: 2 },
];
const INFO = CHECKS.get('column-lean')?.quantities['leanX'];
/** 15 thou over 7 inches: 2143 µm/m, to be taken out toward the left. */
const LEAN = (15 * 25.4) / (7 * 25.4) / 1e-3;

describe('a sine plate for the foot of a column', () => {
  const open = async (inputs: Record<string, unknown> = {}) => {
    await openShop([]);
    return show(SineSetting, {
      ...{ amount: -LEAN, limit: [-65, 65], info: INFO, lower: 'the left side', raise: 'the right side', stock: STOCK },
      ...{ plates: [{ name: 'Sine plate, 100 mm', rolls: 100 }], ...inputs },
    });
  };

  it('says which roll, the stack and the leaves, and asks for the plate closed', async () => {
    const panel = await open();
    // 2143 µm/m over 100 mm.
    expect(panel.text()).toMatch(/Under the roll at the left side: 0\.214 mm/);
    expect(panel.text()).toContain('The plate has not been checked closed');
  });

  it('takes the plate’s own error off: 0.3 thou high over 3 in makes 0.204 of 0.214 mm; low there makes 0.224', async () => {
    const panel = await open();
    TestBed.inject(Settings).system.set('inch');
    let sent: { sine: { zero: { reads: number; over: number } | null }; plan: Record<string, unknown> } | undefined;
    panel.fixture.componentInstance.changed.subscribe((entry) => (sent = entry as never));
    await panel.choose('higher there');
    expect(sent).withContext('nothing before its size is there').toBeUndefined();
    await panel.type('The block reads', '0.3');
    await panel.type('Over', '3 in');
    expect(sent?.sine.zero?.reads).toBeCloseTo(7.62, 6);
    expect(Number(sent?.plan['stack'])).toBeCloseTo(214.286 - 10, 2);
    await panel.choose('lower there');
    expect(Number(sent?.plan['stack'])).toBeCloseTo(214.286 + 10, 2);
    await panel.choose('the same at both ends');
    expect(Number(sent?.plan['stack'])).toBeCloseTo(214.286, 2);
  });

  it('says what the leaves leave over and where that ends', async () => {
    const panel = await open({ set: { rolls: 100, zero: { reads: 7.62, over: 76.2 } } });
    // 204.3 µm out of 0.1 + 0.1 + 0.002 + 0.002: 0.29 µm short, 2.9 µm/m: 0.9 µm in 300 mm.
    expect(panel.text()).toMatch(/Leaves: 0\.100 mm \+ 0\.100 mm \+ 0\.002 mm \+ 0\.002 mm/);
    expect(panel.text()).toMatch(/leave over 0\.001 mm in 300 mm: it ends 0\.001 mm in 300 mm leaning right, in/);
  });

  it('names the nearest piles where the leaves do not fit', async () => {
    const panel = await open({ stock: [{ thickness: '0.1 mm', count: 4 }] });
    expect(panel.text()).toMatch(/nothing in the drawer fits; nearest 0\.100 mm \+ 0\.100 mm/);
  });

  it('names the other roll where the plate itself is out by more than is wanted', async () => {
    const panel = await open({ amount: -50, set: { rolls: 100, zero: { reads: 10, over: 100 } } });
    expect(panel.text()).toMatch(/Under the roll at the right side: 0\.005 mm/);
  });

  it('asks for the rolls where the kit has no plate, and refuses what is no length', async () => {
    const panel = await open({ plates: [] });
    expect(panel.text()).toContain('There is no sine plate in the kit');
    await panel.type('Between the rolls', 'wide');
    expect(panel.text()).not.toContain('Under the roll');
  });
});
