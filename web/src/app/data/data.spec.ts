import { ApiFailure } from './api';
import { stockOf } from './kit';
import { Keys, type KeyHint } from './keys';
import { Drafts } from './drafts';
import * as z from 'zod';

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

describe('drafts', () => {
  const shape = z.object({ a: z.number() });

  it('come back as they were kept, until they are dropped', () => {
    const drafts = new Drafts();
    drafts.keep('one', { a: 1 });
    expect(drafts.read('one', shape)).toEqual({ a: 1 });
    drafts.drop('one');
    expect(drafts.read('one', shape)).toBeUndefined();
  });

  it('that are garbled, or of a shape that is no longer asked for, are none', () => {
    localStorage.setItem('isometra-draft:broken', '{');
    localStorage.setItem('isometra-draft:other', '{"a":"one"}');
    const drafts = new Drafts();
    expect(drafts.read('broken', shape)).toBeUndefined();
    expect(drafts.read('other', shape)).toBeUndefined();
  });
});

describe('a refusal of the server', () => {
  it('is a sentence that names its field in words', () => {
    const said = (path: string, message: string) => new ApiFailure(400, [{ path, message, example: '' }]).message;
    expect(said('id', 'no such machine')).toBe('No such machine.');
    expect(said('card.number', 'is already the number of another machine')).toBe('The number is already the number of another machine.');
    expect(said('content.by', 'must have at most 8 characters')).toBe('The initials must have at most 8 characters.');
    expect(said('rows[2].centreDistance', 'is missing')).toBe('The centre distance is missing.');
    expect(said('id', 'is already the id of something else')).toBe('This is already the id of something else.');
    expect(new ApiFailure(400, []).message).toBe('');
  });
});
