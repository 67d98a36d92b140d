import { TestBed } from '@angular/core/testing';
import { CHECKS } from '@isometra/core';
import { practiceRound as roundOf } from '@isometra/core/practice';
import { Settings } from '../data/settings';
import { openShop, practiceRound, show, until } from '../testing/fake-shop';
import { Begin } from './begin';
import { Bench } from './bench';

const METRIC = /(?<![\w,])\d[\d.]* ?(?:µm|um|mm)(?:\b|\/)|\bµm\b/g;
/** Everything that is read on a screen: words, what stands in empty fields, names. */
const read = (shown: HTMLElement): string => {
  const element = shown.cloneNode(true) as HTMLElement;
  // The other unit stands small beside the large one: that is asked for.
  for (const beside of element.querySelectorAll('.small')) beside.remove();
  return [
    element.textContent ?? '',
    ...[...element.querySelectorAll('[placeholder]')].map((field) => field.getAttribute('placeholder') ?? ''),
  ].join(' | ');
};

describe('in inches', () => {
  for (const id of CHECKS.keys())
    it(`${id}: neither its set-up nor its bench speaks of mm or µm unasked`, async () => {
      const { sheet } = roundOf(id, 3, { repeat: 0.2 });
      const round = practiceRound(sheet);
      await openShop([round]);
      TestBed.inject(Settings).system.set('inch');
      const begin = await show(Begin, { checkId: id });
      await until(() => begin.all('h1').length > 0);
      const bench = await show(Bench, { checkId: id, roundId: round.id });
      await until(() => bench.all('iso-call-column').length > 0);
      const found = [...read(begin.element).matchAll(METRIC), ...read(bench.element).matchAll(METRIC)].map((hit) =>
        hit.input.slice(Math.max(0, (hit.index ?? 0) - 40), (hit.index ?? 0) + 30).replace(/\s+/g, ' '),
      );
      expect([...new Set(found)].join(' ¦ ')).toBe('');
    });
});
