import { TestBed } from '@angular/core/testing';
import { jobDrawing, type JobDrawing, type StepFacts, type Way } from '@isometra/core';
import { JobFigure } from './job-figure';

const words = { size: String, slope: String, length: String };
const facts = (more: Partial<StepFacts>): StepFacts => ({ size: '', direction: '', plus: true, plan: {}, card: {}, words, ...more });

/** A drawing on the screen, and where the middle of each of its marks is: x to the right, y down. */
function drawn(drawing: JobDrawing) {
  const fixture = TestBed.createComponent(JobFigure);
  fixture.componentRef.setInput('drawing', drawing);
  fixture.detectChanges();
  const host: HTMLElement = fixture.nativeElement;
  document.body.append(host);
  const frame = host.querySelector('svg')?.getBoundingClientRect() as DOMRect;
  const middle = (element: Element) => {
    const { left, top, width, height } = element.getBoundingClientRect();
    return { x: (200 * (left + width / 2 - frame.left)) / frame.width, y: (164 * (top + height / 2 - frame.top)) / frame.height };
  };
  const of = (selector: string) => [...host.querySelectorAll(selector)].map(middle);
  return { host, of, text: host.querySelector('svg')?.getAttribute('aria-label') ?? '', done: () => host.remove() };
}

describe('the drawing of a job card', () => {
  const driven: Readonly<Record<'toward' | 'away' | 'left' | 'right', { readonly x: number; readonly y: number }>> = {
    toward: { x: 0, y: -1 },
    away: { x: 0, y: 1 },
    left: { x: 1, y: 0 },
    right: { x: -1, y: 0 },
  };
  for (const [way, side] of Object.entries(driven))
    it(`drives the screw behind a part that goes ${way}, and the one ahead of it where the machine was seen to do that`, () => {
      for (const rule of ['drive-far', 'drive-near'] as const) {
        const drawing = jobDrawing('adjuster', facts({ way: way as Way, rule })) as JobDrawing;
        const { of, done } = drawn(drawing);
        const [hand] = of('.screw.hand');
        const turned = rule === 'drive-near' ? -1 : 1;
        expect(Math.sign(Math.round((hand.x - 100) / 20)))
          .withContext(`${rule} across`)
          .toBe(turned * side.x + 0);
        expect(Math.sign(Math.round((hand.y - 82) / 20)))
          .withContext(`${rule} down`)
          .toBe(turned * side.y + 0);
        done();
      }
    });

  it('of one screw that pulls and pushes has one, and nothing is drawn where no way is known', () => {
    const card = { adjuster: { layout: 'single-screw' } };
    const { of, text, done } = drawn(jobDrawing('adjuster', facts({ way: 'toward', card })) as JobDrawing);
    expect(of('.screw').length).toBe(1);
    expect(text).toBe('One screw moves the part toward you');
    done();
    expect(jobDrawing('adjuster', facts({}))).toBeUndefined();
    expect(jobDrawing('adjuster', facts({ way: 'up' }))).toBeUndefined();
    expect(jobDrawing('adjuster', facts({ way: 'toward', spread: 'wedge' }))).toBeUndefined();
    const gib = { card: { gibs: [{ slide: 'table', straight: true, pitch: 1 }] }, part: { name: 'gib', faces: '', slide: 'table' } };
    expect(jobDrawing('gib', facts(gib))).toBeUndefined();
    expect(jobDrawing('shim-leaves', facts({}))).toBeUndefined();
    expect(jobDrawing('trucks', facts({ plan: { truck: 'rear' } }))).toBeUndefined();
  });

  it('puts the shim between the named truck and its shoulder, with you at the bottom', () => {
    for (const end of ['front', 'rear'] as const)
      for (const shoulder of ['left', 'right'] as const) {
        const card = { trucks: { spacing: 300, shoulder } };
        const { of, text, done } = drawn(jobDrawing('trucks', facts({ plan: { truck: end, shim: 40 }, card })) as JobDrawing);
        const [shim] = of('.hand');
        expect(shim.y > 82)
          .withContext(end)
          .toBe(end === 'front');
        expect(shim.x > 100)
          .withContext(shoulder)
          .toBe(shoulder === 'right');
        expect(text).toBe(`The shim goes in at the ${end} end, on the ${shoulder} side`);
        done();
      }
  });

  it('raises the side that is named: left and front are on the left', () => {
    for (const [raise, lower, left] of [
      ['the left side', 'the right side', true],
      ['the right side', 'the left side', false],
      ['the front', 'the rear', true],
      ['the rear', 'the front', false],
    ] as const) {
      const shims = drawn(jobDrawing('shim-leaves', facts({ raise, lower })) as JobDrawing);
      expect(shims.of('.hand')[0].x < 100)
        .withContext(`shim under ${raise}`)
        .toBe(left);
      shims.done();
      // Metal comes off the other side.
      const metal = drawn(jobDrawing('step-scrape', facts({ raise, lower })) as JobDrawing);
      expect(metal.of('.go')[0].x > 100)
        .withContext(`metal off ${lower}`)
        .toBe(left);
      expect(metal.host.querySelector('figcaption')?.textContent).toContain(raise.includes('side') ? 'front' : 'right side of the machine');
      metal.done();
    }
  });

  it('turns a sleeve as it is seen from the tailstock’s end: toward you is to the left', () => {
    const plan = { angle: 30, turn: 30 };
    const drawing = jobDrawing('eccentric', facts({ plan })) as JobDrawing;
    expect(drawing).toEqual({ shows: 'sleeve', from: 0, to: 30 });
    const { of, done } = drawn(drawing);
    expect(of('.hand')[0].x).toBeLessThan(100);
    done();
    const back = drawn(jobDrawing('eccentric', facts({ plan: { angle: -30, turn: -30 } })) as JobDrawing);
    expect(back.of('.hand')[0].x).toBeGreaterThan(100);
    back.done();
  });

  it('sets the screws of a straight gib from the middle outward, and drives a taper gib at its large end', () => {
    const card = { gibs: [{ slide: 'table', straight: true, screws: 4, pitch: 1 }] };
    const part = { name: 'gib', faces: '', slide: 'table' };
    const drawing = jobDrawing('gib', facts({ card, part })) as JobDrawing;
    expect(drawing).toEqual({ shows: 'gib', screws: [1, 2, 0, 3] });
    const { host, done } = drawn(drawing);
    expect([...host.querySelectorAll('text.strong')].map((text) => text.textContent?.trim())).toEqual(['1', '2', '3', '4']);
    done();
    expect(drawn(jobDrawing('gib', facts({})) as JobDrawing).text).toBe('The gib is driven at its large end');
  });

  it('keeps its words inside, and clear of one another', () => {
    const all: JobDrawing[] = [
      ...(['toward', 'away', 'left', 'right'] as const).flatMap((way) =>
        (['drive-far', 'drive-near'] as const).map((rule) => jobDrawing('adjuster', facts({ way, rule })) as JobDrawing),
      ),
      { shows: 'pulled', near: 12, far: -30 },
      { shows: 'ends', front: true, rear: true },
      { shows: 'joint', raise: 'the left side', lower: 'the right side', metal: true },
      { shows: 'joint', raise: 'the rear', lower: 'the front', metal: false },
      { shows: 'head', way: 'left' },
      { shows: 'head', way: 'away' },
      { shows: 'sleeve', from: -170, to: 160 },
      { shows: 'gib', screws: [] },
      { shows: 'gib', screws: [1, 2, 0, 3] },
      { shows: 'guide', end: 'rear', side: 'left' },
    ];
    for (const drawing of all) {
      const { host, done } = drawn(drawing);
      const frame = host.querySelector('svg')?.getBoundingClientRect() as DOMRect;
      const texts = [...host.querySelectorAll('svg text')]
        .filter((text) => text.textContent?.trim())
        .map((text) => text.getBoundingClientRect());
      for (const [i, one] of texts.entries()) {
        expect(one.left >= frame.left - 0.5 && one.right <= frame.right + 0.5)
          .withContext(`${JSON.stringify(drawing)} ${one.left - frame.left} to ${one.right - frame.left}`)
          .toBeTrue();
        for (const other of texts.slice(i + 1)) {
          const apart = one.right <= other.left || other.right <= one.left || one.bottom <= other.top + 3 || other.bottom <= one.top + 3;
          expect(apart).withContext(JSON.stringify(drawing)).toBeTrue();
        }
      }
      done();
    }
  });
});
