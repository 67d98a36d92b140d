import type { ReadingWrite, Round } from '@isometra/contract';
import { stockOf } from './kit';
import { Keys, type KeyHint } from './keys';
import { withWaiting } from './rounds';

describe('a round with what is still on its way', () => {
  const reading = (id: string): ReadingWrite => ({ id, keys: {}, value: '1', set: 1, supersedes: null, why: null, by: 'AB', at: '' });
  const waiting = (id: string) => ({ id, method: 'POST' as const, path: '/rounds/r/readings', body: reading(id), round: 'r' });
  it('has each reading once, the waiting ones last', () => {
    const round = { id: 'r', readings: [{ ...reading('a'), roundId: 'r', sequence: 7 }] } as unknown as Round;
    const shown = withWaiting(round, [waiting('a'), waiting('b')]);
    expect(shown.readings.map((entry) => [entry.id, entry.sequence])).toEqual([
      ['a', 7],
      ['b', 8],
    ]);
    expect(withWaiting(round, [])).toBe(round);
  });
});

describe('the keys', () => {
  const press = (key: string, target?: HTMLElement) => {
    const event = new KeyboardEvent('keydown', { key, cancelable: true });
    if (target) Object.defineProperty(event, 'target', { value: target });
    return event;
  };
  it('of the screen on top go first, and letters stay out of fields', () => {
    const keys = new Keys();
    const log: string[] = [];
    const hint = (name: string, more: Partial<KeyHint> = {}): KeyHint => ({
      shown: 'N',
      does: name,
      keys: ['n'],
      run: () => void log.push(name),
      ...more,
    });
    keys.use([hint('shell')]);
    const release = keys.use([hint('screen')]);
    const event = press('N');
    keys.handle(event);
    expect(event.defaultPrevented).toBeTrue();
    release();
    keys.handle(press('n'));
    const field = document.createElement('input');
    field.type = 'text';
    keys.handle(press('n', field));
    field.dataset['keys'] = 'when-empty';
    keys.handle(press('n', field));
    field.value = '3';
    keys.handle(press('n', field));
    keys.use([hint('declines', { run: () => false, inFields: true })]);
    keys.handle(press('n'));
    expect(log).toEqual(['screen', 'shell', 'shell', 'shell']);
  });
});

describe('the shim drawers', () => {
  it('are one stock', () => {
    const drawer = (stock: unknown[]) => ({
      id: '',
      kind: 'shim-stock' as const,
      name: '',
      data: { stock },
      care: {},
      photos: [],
      version: 1,
    });
    expect(stockOf([drawer([1]), drawer([2, 3])])).toEqual([1, 2, 3]);
    expect(stockOf([])).toBeUndefined();
  });
});
