import { signal } from '@angular/core';
import { askedText } from './asked-text';

describe('a field whose text goes into the address', () => {
  it('keeps what was typed since, whatever comes back late', () => {
    const address = signal('');
    const field = askedText(address);
    expect(field.type('levelling ')).toBe('levelling');
    expect(field.type('levelling f')).toBe('levelling f');
    // What was asked for first arrives only now.
    address.set('levelling');
    expect(field.value()).toBe('levelling f');
    address.set('levelling f');
    expect(field.value()).toBe('levelling f');
  });

  it('keeps a space at the end of a word, after which another comes', () => {
    const address = signal('');
    const field = askedText(address);
    address.set(field.type('levelling '));
    expect(field.value()).toBe('levelling ');
  });

  it('shows what the address says by itself: a link, Back, forward', () => {
    const address = signal('felt');
    const field = askedText(address);
    expect(field.value()).toBe('felt');
    address.set(field.type('gib'));
    address.set('felt');
    expect(field.value()).toBe('felt');
    address.set('gib');
    expect(field.value()).toBe('gib');
    address.set('');
    expect(field.value()).toBe('');
  });
});
