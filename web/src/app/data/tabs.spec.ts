import { newId } from './id';
import { oneAtATime, open, sayHere } from './tabs';

const order = async (name: string): Promise<string[]> => {
  const said: string[] = [];
  const work = (who: string) => async () => {
    said.push(`${who} begins`);
    await new Promise((later) => setTimeout(later, 5));
    said.push(`${who} ends`);
    if (who === 'two') throw new Error('broken');
  };
  const all = ['one', 'two', 'three'].map((who) => oneAtATime(name, work(who)));
  const ends = await Promise.allSettled(all);
  return [...said, ...ends.map(({ status }) => status)];
};
const IN_TURN = [
  ...['one begins', 'one ends', 'two begins', 'two ends', 'three begins', 'three ends'],
  ...['fulfilled', 'rejected', 'fulfilled'],
];

describe('what one tab does alone', () => {
  it('is done one after the other, whatever fails, with the browser’s own locks', async () => {
    expect(await order(newId())).toEqual(IN_TURN);
    const leave = sayHere('spec-own');
    // A lock is asked for, and there in a moment.
    for (let i = 0; i < 100 && !(await open()).has('spec-own'); i++) await new Promise((later) => setTimeout(later, 5));
    expect((await open()).has('spec-own')).toBeTrue();
    leave();
  });

  it('and without them, as on a phone in the network, where a tab that is gone is known by its silence', async () => {
    Object.defineProperty(navigator, 'locks', { value: undefined, configurable: true });
    try {
      expect(await order(newId())).toEqual(IN_TURN);
      const leave = sayHere('spec-tab');
      expect((await open()).has('spec-tab')).toBeTrue();
      localStorage.setItem('isometra-here:spec-gone', String(Date.now() - 60_000));
      expect((await open()).has('spec-gone')).toBeFalse();
      leave();
      expect((await open()).has('spec-tab')).toBeFalse();
    } finally {
      delete (navigator as { locks?: unknown }).locks;
    }
  });

  it('an id is a UUID, and none comes twice', () => {
    const ids = Array.from({ length: 100 }, newId);
    expect(ids.every((id) => /^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/.test(id))).toBeTrue();
    expect(new Set(ids).size).toBe(100);
  });
});
