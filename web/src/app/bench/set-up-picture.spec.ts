import { TestBed } from '@angular/core/testing';
import { CHECKS, type CheckDefinition } from '@isometra/core';
import { practiceRound } from '@isometra/core/practice';
import { DIMENSION_LINES } from '../sketches/dimensions';
import { openShop, until } from '../testing/fake-shop';
import type { PartsDraft } from './check-parts';
import { SetUpPicture } from './set-up-picture';

const check = (id: string) => CHECKS.get(id) as CheckDefinition;

/** The picture of a set-up, at a width. */
async function drawn(of: CheckDefinition, setup: PartsDraft['setup'], { field = '', width = 570 } = {}) {
  const fixture = TestBed.createComponent(SetUpPicture);
  fixture.componentRef.setInput('check', of);
  fixture.componentRef.setInput('draft', { setup, conditions: {}, plan: {} });
  fixture.componentRef.setInput('field', field);
  const host: HTMLElement = fixture.nativeElement;
  host.style.width = `${width}px`;
  document.body.append(host);
  await until(async () => {
    await fixture.whenStable();
    return host.querySelector('.lines') !== null;
  });
  const texts = (selector: string) => [...host.querySelectorAll<SVGTextElement>(selector)].filter((text) => text.textContent?.trim());
  return { host, fixture, texts, done: () => host.remove() };
}

describe('the picture of a set-up', () => {
  beforeEach(() => openShop([]));

  it('says what the lengths of the form are, with what has been typed, and marks the one in hand', async () => {
    const bar = { diameter: '30 mm', freeLength: '300 mm', material: 'steel' };
    const { texts, host, done } = await drawn(check('spindle-axis'), { bar }, { field: 'bar.freeLength' });
    expect(texts('.lines text').map((text) => text.textContent?.trim())).toEqual(['Free length 300 mm', 'Bar diameter 30 mm']);
    expect(host.querySelector('.marked')?.textContent).toContain('Free length');
    // The places to read are there before the first reading.
    expect(host.querySelectorAll('.mark').length).toBeGreaterThan(3);
    done();
  });

  it('names a length that is not filled in yet, and shows the drawing all the same', async () => {
    const { texts, done } = await drawn(check('tailstock-traverse'), {});
    expect(texts('.lines text').map((text) => text.textContent?.trim())).toEqual(['Distance between centres', 'Bar diameter']);
    done();
  });

  it('has each line on a field that its check has', () => {
    for (const [drawing, lines] of Object.entries(DIMENSION_LINES)) {
      const checks = [...CHECKS.values()].filter(({ picture }) => picture.drawing === drawing);
      for (const { field } of lines)
        expect(checks.some(({ setup }) => field.split('.')[0] in setup.shape))
          .withContext(`${drawing} ${field}`)
          .toBeTrue();
    }
  });

  it('its words keep clear of the drawing’s own, and inside, wide and on a phone', async () => {
    const own = [...CHECKS.values()].filter(({ picture }) => DIMENSION_LINES[picture.drawing]);
    expect(own.length).toBeGreaterThan(8);
    const wrong: string[] = [];
    for (const of of own)
      for (const width of [570, 334]) {
        const { sheet } = practiceRound(of.id, 3);
        const { host, texts, done } = await drawn(of, (sheet['setup'] ?? {}) as PartsDraft['setup'], { width });
        const frame = host.getBoundingClientRect();
        const boxes = texts('.lines text').map((text) => ({ text: text.textContent?.trim() ?? '', at: text.getBoundingClientRect() }));
        const others = texts('svg:not(.lines) text').map((text) => ({
          text: text.textContent?.trim() ?? '',
          at: text.getBoundingClientRect(),
        }));
        boxes.forEach(({ text, at }, i) => {
          if (at.left < frame.left - 1 || at.right > frame.right + 1) wrong.push(`${of.id} ${width}: "${text}" leaves the drawing`);
          for (const other of [...boxes.slice(i + 1), ...others]) {
            const apart =
              at.right <= other.at.left + 1 ||
              other.at.right <= at.left + 1 ||
              at.bottom <= other.at.top + 3 ||
              other.at.bottom <= at.top + 3;
            if (!apart) wrong.push(`${of.id} ${width}: "${text}" over "${other.text}"`);
          }
        });
        done();
      }
    expect(wrong).toEqual([]);
  });
});
