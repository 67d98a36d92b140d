import type { Made } from '@isometra/contract';
import { openShop, show } from '../testing/fake-shop';
import { GibFelt } from './gib-felt';

type Felt = NonNullable<Made['felt']>;

describe('a gib by feel', () => {
  const open = async (inputs: { readonly asked?: number; readonly screws?: number; readonly felt?: Felt }) => {
    await openShop([]);
    const page = await show(GibFelt, inputs);
    const told: Felt[] = [];
    page.fixture.componentInstance.changed.subscribe((felt) => {
      told.push(felt);
      page.fixture.componentRef.setInput('felt', felt);
    });
    const give = async (eighths: string, drag: string) => {
      await page.type('Eighths of a turn given', eighths);
      await page.choose(drag);
      await page.press('Write it down');
    };
    return { page, told, give };
  };

  it('every eighth is kept with the drag after it, and stiff goes back', async () => {
    const { page, told, give } = await open({ asked: 6 });
    expect(page.text()).toContain('Now 2 eighths of a turn, then feel');
    await give('2', 'light');
    expect(page.text()).toContain('Given so far: 2 of 6 eighths');
    await give('2', 'stiff');
    expect(page.text()).toContain('Stiff: one eighth back now');
    expect(page.field('Eighths of a turn given').value).toBe('-1');
    await give('-1', 'good');
    expect(page.text()).toContain('As far as it goes by feel');
    expect(told.at(-1)).toEqual([
      { eighths: 2, drag: 1 },
      { eighths: 2, drag: 5 },
      { eighths: -1, drag: 3 },
    ]);
    expect(page.text()).toContain('1 eighth of a turn back, then good (3)');
    await page.press('undo the last one');
    expect(told.at(-1)?.length).toBe(2);
  });

  it('a figure that is none, and a drag that nobody felt, are asked for', async () => {
    const { page, told } = await open({ asked: 6 });
    await page.type('Eighths of a turn given', '1.5');
    await page.press('Write it down');
    expect(page.text()).toContain('must be a whole number, − for back. Example: 1');
    await page.type('Eighths of a turn given', '1');
    await page.press('Write it down');
    expect(page.text()).toContain('Drag felt after it: must be chosen.');
    expect(told).toEqual([]);
  });

  it('the screws of a straight gib are asked in their order', async () => {
    const { page, told, give } = await open({ screws: 4 });
    expect(page.text()).toContain('Next is screw 2');
    await give('1', 'some');
    expect(page.text()).toContain('Next is screw 3');
    await page.type('Screw', '7');
    await give('1', 'some');
    expect(page.text()).toContain('Screw: must be from 1 to 4.');
    await page.type('Screw', '3');
    await page.press('Write it down');
    expect(told.at(-1)?.map(({ screw }) => screw)).toEqual([2, 3]);
  });
});
