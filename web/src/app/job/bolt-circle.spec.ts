import { openShop, show } from '../testing/fake-shop';
import { BoltCircle } from './bolt-circle';

describe('the bolts of a head', () => {
  const open = async (count = 4) => {
    await openShop([]);
    const circle = await show(BoltCircle, { count });
    circle.fixture.componentInstance.changed.subscribe((read) => circle.fixture.componentRef.setInput('read', read));
    const read = async (text: string) => {
      const label = circle.all('input')[0].getAttribute('aria-label') ?? '';
      await circle.type(label, text);
      await circle.press('Write it down');
      await circle.fixture.whenStable();
      return label;
    };
    return { circle, read };
  };

  it('are asked crosswise, each with what the needle read after it; the second time round as the first', async () => {
    const { circle, read } = await open();
    const asked = [];
    for (const reads of ['0', '0.5', '1', '1.5', '1.5', '2']) asked.push(await read(reads));
    expect(asked.map((label) => /Bolt (\d)/.exec(label)?.[1])).toEqual(['1', '3', '2', '4', '1', '3']);
    expect(circle.text()).toContain('1: 0 div 3: 0.5 div 2: 1 div 4: 1.5 div 1: 1.5 div 3: 2 div');
    await circle.press('undo the last one');
    expect(circle.text()).not.toContain('3: 2 div');
  });

  it('another one that is clicked is the next, and its order is kept to', async () => {
    const { circle, read } = await open();
    circle.all('svg g')[1].dispatchEvent(new Event('click'));
    await circle.fixture.whenStable();
    const asked = [await read('0'), await read('1'), await read('1'), await read('2'), await read('2')];
    expect(asked.map((label) => /Bolt (\d)/.exec(label)?.[1])).toEqual(['2', '1', '3', '4', '2']);
  });

  it('a needle that is no number is refused, and stays in its field', async () => {
    const { circle, read } = await open();
    await read('a bit');
    expect(circle.text()).toContain('"a bit" is not a number of divisions. Example: -1.5');
    expect(circle.all('.figures').length).toBe(0);
  });
});
