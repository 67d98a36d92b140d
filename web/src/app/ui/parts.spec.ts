import { wayOut } from '@isometra/work';
import { TestBed } from '@angular/core/testing';
import { Dial } from './dial';
import { Glyph, type GlyphState } from './glyph';

async function render<T>(component: new () => T, inputs: Record<string, unknown>): Promise<HTMLElement> {
  const fixture = TestBed.createComponent(component);
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  await fixture.whenStable();
  return fixture.nativeElement as HTMLElement;
}

describe('the six glyphs', () => {
  it('differ in shape, not only in colour, and have names', async () => {
    const shapes = new Set<string>();
    for (const state of ['in', 'out', 'unsure', 'stale', 'none', 'left'] as GlyphState[]) {
      const svg = (await render(Glyph, { state })).querySelector('svg');
      expect(svg?.getAttribute('aria-label')).toBeTruthy();
      shapes.add(
        [...(svg?.querySelectorAll('rect,path,circle') ?? [])].map((part) => part.outerHTML.replace(/var\(--[a-z]+\)/g, '')).join(),
      );
    }
    expect(shapes.size).toBe(6);
  });
  it('an open diamond points the way it is out: toward the operator is down the picture', async () => {
    const arrow = (element: HTMLElement) => element.querySelectorAll('path')[1]?.getAttribute('transform');
    expect(arrow(await render(Glyph, { state: 'out', way: 'toward' }))).toBe('rotate(180 12 12)');
    expect(arrow(await render(Glyph, { state: 'out', way: 'up' }))).toBe('rotate(0 12 12)');
    expect(arrow(await render(Glyph, { state: 'out', way: 'left' }))).toBe('rotate(270 12 12)');
  });
});

describe('the dial', () => {
  it('turns clockwise as the count rises and tells its target', async () => {
    const element = await render(Dial, { value: 10, target: 22.5 });
    const needles = [...element.querySelectorAll('line[transform]')].map((line) => line.getAttribute('transform'));
    expect(needles).toContain('rotate(72)');
    expect(needles).toContain('rotate(162)');
    expect(element.querySelector('svg')?.getAttribute('aria-label')).toBe('Needle at 10.0 divisions, to go to 22.5');
    expect((await render(Dial, {})).querySelector('svg')?.getAttribute('aria-label')).toBe('Dial without a reading');
  });
});

describe('the arrow of a value that is out', () => {
  const info = { words: { arrow: ['up', 'down'] } } as never;
  it('points to the side of the zone on which it lies, also where the sign says otherwise', () => {
    expect(wayOut({ value: 12, limit: [88, 155] }, info)).toBe('down');
    expect(wayOut({ value: 12, limit: [0, 5] }, info)).toBe('up');
    expect(wayOut({ value: 12, limit: [0, 50] }, info)).toBeNull();
    expect(wayOut({ value: 12, limit: null }, info)).toBeNull();
  });
});
