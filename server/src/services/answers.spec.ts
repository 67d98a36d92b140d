import { Answers } from './answers.js';

describe('answers that are kept', () => {
  let answers: Answers;
  let worked: number;
  const ask = () => answers.of('heads', () => Promise.resolve({ worked: ++worked }));
  beforeEach(() => {
    answers = new Answers();
    worked = 0;
  });

  it('are worked out once, until something is written', async () => {
    expect([await ask(), await ask()]).toEqual(['{"worked":1}', '{"worked":1}']);
    answers.begin()();
    expect([await ask(), await ask()]).toEqual(['{"worked":2}', '{"worked":2}']);
    expect(await answers.of('others', () => Promise.resolve(7))).toBe('7');
  });

  it('while something is being written nothing is kept, nor used', async () => {
    await ask();
    const over = answers.begin();
    expect(await ask()).toBe('{"worked":2}');
    expect(await ask()).toBe('{"worked":3}');
    over();
    over();
    expect(await ask()).toBe('{"worked":4}');
    expect(await ask()).toBe('{"worked":4}');
  });

  it('what was worked out while something was written is told, and not kept', async () => {
    const told = await answers.of('heads', async () => {
      answers.begin()();
      await Promise.resolve();
      return 'old';
    });
    expect(told).toBe('"old"');
    expect(await ask()).toBe('{"worked":1}');
  });
});
