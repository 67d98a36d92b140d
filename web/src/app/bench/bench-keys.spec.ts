import { TestBed } from '@angular/core/testing';
import { Keys } from '../data/keys';
import { benchKeys } from './bench-keys';

describe('the keys of the bench', () => {
  let did: string[];
  let keys: Keys;
  const press = (key: string, target?: HTMLElement) => {
    const event = new KeyboardEvent('keydown', { key, cancelable: true });
    if (target) Object.defineProperty(event, 'target', { value: target });
    keys.handle(event);
    return event.defaultPrevented;
  };
  const field = (id: string, value = '', lends = false) => {
    const input = document.createElement('input');
    Object.assign(input, { id, value, type: 'text' });
    if (lends) input.dataset['keys'] = 'when-empty';
    return input;
  };

  beforeEach(() => {
    did = [];
    const note = (word: string) => () => void did.push(word);
    keys = TestBed.inject(Keys);
    keys.use(
      benchKeys({
        step: (by) => void did.push(`step ${by}`),
        repeat: note('repeat'),
        table: note('table'),
        another: note('another'),
        asSetUp: note('set-up'),
        move: () => (did.push('move'), false),
        next: note('next'),
        focus: note('focus'),
      }),
    );
  });

  it('go from place to place and back to the field', () => {
    expect(press('ArrowDown')).toBeTrue();
    expect(press('ArrowUp', field('reading', '3.5'))).toBeTrue();
    expect(did).toEqual(['step 1', 'focus', 'step -1', 'focus']);
  });

  it('leave the arrows to another field', () => {
    expect(press('ArrowDown', field('centreDistance'))).toBeFalse();
    expect(did).toEqual([]);
  });

  it('letters work from the empty reading field, and are letters in a full one or elsewhere', () => {
    press('t', field('reading', '', true));
    press('S', field('reading', '', true));
    press('e', field('reading', '', true));
    press('t', field('reading', '1', true));
    press('t', field('note'));
    expect(did).toEqual(['table', 'another', 'set-up']);
  });

  it('a key that did nothing keeps its usual meaning', () => {
    expect(press('m')).toBeFalse();
    expect(press('r')).toBeTrue();
    expect(press('n')).toBeTrue();
    expect(did).toEqual(['move', 'repeat', 'focus', 'next']);
  });

  it('are all told in the strip with what they do', () => {
    for (const hint of keys.all()) expect(hint.does.length).withContext(hint.shown).toBeGreaterThan(3);
    const letters = keys.all().flatMap((hint) => hint.keys);
    expect(new Set(letters).size).toBe(letters.length);
  });
});
