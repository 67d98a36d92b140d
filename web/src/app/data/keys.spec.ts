import { TestBed } from '@angular/core/testing';
import { Keys, type KeyHint } from './keys';

describe('the keys', () => {
  let pressed: string[];
  let keys: Keys;
  const hint = (key: string, more: Partial<KeyHint> = {}): KeyHint => ({
    shown: key,
    does: key,
    keys: [key],
    run: () => void pressed.push(key),
    ...more,
  });
  /** An element that has the focus, as it stands in a page. */
  const within = (html: string): Element => {
    const host = document.createElement('div');
    host.innerHTML = html;
    document.body.append(host);
    return host.querySelector('.on') ?? host;
  };
  const press = (key: string, target: Element, more: KeyboardEventInit = {}) => {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more });
    target.addEventListener('keydown', (heard) => keys.handle(heard as KeyboardEvent), { once: true });
    target.dispatchEvent(event);
    return event;
  };
  beforeEach(() => {
    pressed = [];
    keys = TestBed.inject(Keys);
    keys.use([hint(' '), hint('Enter'), hint('b'), hint('Escape', { inFields: true }), hint('ArrowDown', { repeats: true })]);
  });
  afterEach(() => document.querySelectorAll('body > div > .on').forEach((element) => element.parentElement?.remove()));

  it('of two on one key the newer is shown, until it is gone', () => {
    const letGo = keys.use([hint('b', { does: 'the newer' })]);
    expect(
      keys
        .all()
        .filter(({ shown }) => shown === 'b')
        .map(({ does }) => does),
    ).toEqual(['the newer']);
    letGo();
    expect(keys.all().find(({ shown }) => shown === 'b')?.does).toBe('b');
  });

  it('what is typed while a field is on its way is meant for it, and no key takes it; Escape ends the wait', () => {
    const page = within('<p class="on">work</p>');
    keys.awaitField();
    for (const key of ['b', 'x', 'Backspace', ' ', 'Enter', 'u']) expect(press(key, page).defaultPrevented).toBeTrue();
    expect(pressed).toEqual([]);
    press('Escape', page);
    expect(pressed).toEqual(['Escape']);
    expect(keys.fieldIsHere()).toBe('b u');
    press('b', page);
    expect(pressed).toEqual(['Escape', 'b']);
  });

  it('a field that never comes does not keep the keys', () => {
    const page = within('<p class="on">work</p>');
    const now = spyOn(performance, 'now').and.returnValue(0);
    keys.awaitField();
    now.and.returnValue(5001);
    press('b', page);
    expect(pressed).toEqual(['b']);
  });

  it('Space and Enter on a button or a link are that button’s; held down they press it once', () => {
    for (const html of [
      '<button class="on">Blue</button>',
      '<a class="on" href="#">Read it</a>',
      '<span role="button" class="on">x</span>',
    ])
      for (const key of [' ', 'Enter']) {
        const target = within(html);
        expect(press(key, target).defaultPrevented).withContext(html).toBeFalse();
        expect(press(key, target, { repeat: true }).defaultPrevented)
          .withContext(html)
          .toBeTrue();
      }
    expect(pressed).toEqual([]);
    press(' ', within('<p class="on"></p>'));
    expect(pressed).toEqual([' ']);
  });

  it('a key or pedal that is held down counts once; going from place to place goes on', () => {
    const target = within('<p class="on"></p>');
    press('b', target);
    for (let i = 0; i < 15; i++) press('b', target, { repeat: true });
    expect(pressed).toEqual(['b']);
    press('ArrowDown', target, { repeat: true });
    expect(pressed).toEqual(['b', 'ArrowDown']);
  });

  it('no letter goes past a field, a list, a date picker or a dialog; Escape does', () => {
    for (const html of [
      '<input type="text" class="on">',
      '<ul role="listbox"><li class="on"></li></ul>',
      '<span role="combobox" class="on"></span>',
      '<div role="dialog"><p class="on"></p></div>',
      '<div class="p-datepicker"><span class="on"></span></div>',
    ])
      press('b', within(html));
    expect(pressed).toEqual([]);
    press('Escape', within('<div role="dialog"><p class="on"></p></div>'));
    expect(pressed).toEqual(['Escape']);
  });

  it('arrows go from choice to choice where there are some', () => {
    press('ArrowDown', within('<div role="radiogroup"><input type="radio" class="on"></div>'));
    expect(pressed).toEqual([]);
  });

  it('an empty field that lends its keys lends them', () => {
    const target = within('<input type="text" class="on" data-keys="when-empty">') as HTMLInputElement;
    press('b', target);
    target.value = '5';
    press('b', target);
    expect(pressed).toEqual(['b']);
  });
});
