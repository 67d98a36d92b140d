import { doable, onMachine } from './doable.js';

describe('what can be done on a machine', () => {
  it('a slide on linear guides is shimmed at a truck, one on its own ways is scraped', () => {
    expect(['scrape', 'trucks'].map((kind) => doable(kind, 'machining-centre', 'axis-squareness'))).toEqual([false, true]);
    expect(['scrape', 'trucks'].map((kind) => doable(kind, 'knee-mill', 'axis-squareness'))).toEqual([true, false]);
  });

  it('a finding is the same object where nothing is taken out of it', () => {
    const finding = { check: 'axis-squareness', moves: [{ kind: 'scrape' }] } as never;
    expect(onMachine(finding, 'knee-mill')).toBe(finding);
    expect(onMachine(finding, 'machining-centre').moves).toEqual([]);
  });
});
