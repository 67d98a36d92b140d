import { TestBed } from '@angular/core/testing';
import { CHECKS, type CheckDefinition, type Picture } from '@isometra/core';
import { practiceRound } from '@isometra/core/practice';
import { METHOD_DRAWINGS, drawnOff, exaggeration, type MethodInputs, type MethodMark } from '@isometra/work/methods';
import { Settings } from '../data/settings';
import { show } from '../testing/fake-shop';
import { MethodDrawing } from './method-drawing';

const mark = (keys: MethodMark['keys'], state: MethodMark['state'] = 'todo'): MethodMark => ({
  index: 0,
  keys,
  label: 'a place',
  state,
  text: state === 'read' ? '3 div' : '',
  deviation: null,
});

/** A drawing, with what is pointed at on it. */
async function drawn(of: MethodInputs) {
  const shown = await show(MethodDrawing, { of });
  const [picked, sets]: [number[], Readonly<Record<string, unknown>>[]] = [[], []];
  shown.fixture.componentInstance.picked.subscribe((index) => picked.push(index));
  shown.fixture.componentInstance.sets.subscribe((part) => sets.push(part));
  return { drawn: shown, picked, sets };
}

async function draw(drawing: Picture['drawing'], setup: MethodInputs['setup'], marks: MethodMark[], h: number, v: number) {
  const fixture = TestBed.createComponent(MethodDrawing);
  fixture.componentRef.setInput('of', { setup, marks, result: { h, v, out: true }, picture: { drawing } });
  await fixture.whenStable();
  return fixture.nativeElement as HTMLElement;
}
const NOTHING = { h: null, v: null, out: false };
const shift = (transform: string | null | undefined): number[] =>
  [...(transform ?? '').matchAll(/-?\d+(?:\.\d+)?/g)].map((found) => Number(found[0]));

describe('sketches', () => {
  for (const check of CHECKS.values()) {
    it(`${check.id}: every place of its plan is a mark that is told by name and can be chosen`, async () => {
      const { setup: raw, readings } = practiceRound(check.id, 1).sheet as { setup: object; readings: Readonly<Record<string, never>>[] };
      const setup = check.setup.parse(raw);
      const planned = check.slots(setup, check.plan.parse({})).filter(({ closing }) => !closing);
      // A plan that asks nothing of its own is drawn from what was read.
      const keys = planned.length ? planned.map((slot) => slot.keys) : readings.map(({ value: _value, ...rest }) => rest);
      const marks = keys.map((of, index): MethodMark => ({
        index,
        keys: of,
        label: `place ${index}`,
        state: 'todo',
        text: '',
        deviation: null,
      }));
      const { drawn: shown, picked } = await drawn({ setup, marks, result: { h: 10, v: 5, out: true }, picture: check.picture });
      const told = shown.all('.mark');
      expect(told.map((entry) => entry.getAttribute('aria-label')).sort()).toEqual(marks.map(({ label }) => label).sort());
      told.forEach((entry) => entry.dispatchEvent(new MouseEvent('click')));
      expect(picked.length).toBe(marks.length);
      for (const element of shown.all('svg *')) expect(element.outerHTML.slice(0, 200)).not.toMatch(/NaN|undefined/);
    });
  }

  it('no drawing is without a check, and no check’s bends without its quantities', () => {
    const used = new Set([...CHECKS.values()].map(({ picture }) => picture.drawing));
    for (const drawing of Object.keys(METHOD_DRAWINGS))
      expect(used.has(drawing as never))
        .withContext(drawing)
        .toBeTrue();
    for (const { id, picture, quantities } of CHECKS.values())
      for (const name of Object.values(picture.bends ?? {})) expect(quantities[name]).withContext(id).toBeDefined();
  });

  it('a mill is seen from above with its column at the top, a lathe from its headstock', async () => {
    const words = async (id: string) => {
      const { picture } = CHECKS.get(id) as CheckDefinition;
      return (await drawn({ setup: {}, marks: [], result: NOTHING, picture })).drawn.text();
    };
    expect(await words('head-tram')).toMatch(/from above.*column.*you.*tilt.*nod/);
    expect(await words('head-tram')).not.toMatch(/headstock|tailstock|rear/);
    expect(await words('tailstock-sweep')).toContain('seen from the headstock');
  });

  it('places along a line make a row for each way of reading', async () => {
    const marks = [mark({ at: 0, end: 'forward' }), mark({ at: 100, end: 'forward' }), mark({ at: 0, end: 'reversed' }, 'read')];
    const element = await draw('places', {}, marks, 0, 0);
    expect(element.querySelectorAll('.iron').length).toBe(2);
    expect([...element.querySelectorAll('.mark')].map((entry) => shift(entry.getAttribute('transform'))[0])).toEqual([60, 660, 360]);
    const named = await draw(
      'places',
      {},
      ['a', 'b', 'c', 'd'].map((corner) => mark({ corner })),
      0,
      0,
    );
    expect(named.querySelectorAll('.iron').length).toBe(1);
  });

  it('a tailstock toward the operator lies lower in the plan, a high one higher in the side view', async () => {
    const element = await draw(
      'bar-between-centres',
      { centreDistance: 400 },
      [mark({ plane: 'h', at: 20 }, 'next'), mark({ plane: 'v', at: 380 }, 'read')],
      30,
      12,
    );
    const [plan, sideView] = [...element.querySelectorAll('g > g:not(.mark)')].map((group) => shift(group.getAttribute('transform'))[1]);
    expect(plan).toBeGreaterThan(5);
    expect(sideView).toBeLessThan(-2);
    expect(Math.abs(plan - (-sideView * 30) / 12))
      .withContext('drawn on the half pixel')
      .toBeLessThan(1);
    expect(element.querySelectorAll('.mark.next').length).toBe(1);
    expect(element.querySelector('.mark.read text')?.textContent).toBe('3');
    expect(element.textContent).toMatch(/errors drawn ×\d+/);
  });

  it('marks stand where the stylus goes: the rear side is above the bar in the plan', async () => {
    const at = async (side: string) =>
      shift(
        (await draw('bar-between-centres', { centreDistance: 400, side }, [mark({ plane: 'h', at: 200 })], 0, 0))
          .querySelector('.mark')
          ?.getAttribute('transform'),
      );
    expect((await at('operator'))[1]).toBeGreaterThan(0);
    expect((await at('rear'))[1]).toBeLessThan(0);
    expect((await at('rear'))[0]).toBe(360);
  });

  it('seen from the headstock, toward the operator is to the right and up is up', async () => {
    const element = await draw('swept-circle', { feature: 'outside' }, [mark({ angle: 0 }), mark({ angle: 90 })], 20, 10);
    const circle = element.querySelector('circle.iron');
    expect(Number(circle?.getAttribute('cx'))).toBeGreaterThan(0);
    expect(Number(circle?.getAttribute('cy'))).toBeLessThan(0);
    const seats = [...element.querySelectorAll('.seat')].map((seat) => seat.getAttribute('transform'));
    expect(seats[0]).toMatch(/rotate\(90\)$/);
    expect(seats[1]).toMatch(/rotate\(0\)$/);
  });

  it('the tool stands on its own side of a turned bar', async () => {
    const tool = async (where: string) =>
      (await draw('turned-bar', { centreDistance: 400, tool: where }, [mark({ at: 20 })], 5, 0))
        .querySelector('.tool')
        ?.getAttribute('transform');
    expect(await tool('operator')).toContain('translate(360 58)');
    expect(await tool('rear')).toContain('translate(360 -58)');
  });

  it('exaggeration is a round figure that the drawing can print', () => {
    for (const value of [1, 3, 10, 47, 300]) expect(String(exaggeration([value], 26, 1.2))).toMatch(/^[125]0*$/);
    expect(exaggeration([0, null], 26, 1.2)).toBe(500);
  });
});

describe('the drawings of their own', () => {
  const mark = (index: number, keys: MethodMark['keys'], text = '', deviation: number | null = null): MethodMark => ({
    index,
    keys,
    label: `place ${index}`,
    state: text ? 'read' : 'todo',
    text,
    deviation,
  });
  const result = { h: null, v: null, out: false };
  const draw = async (check: string, marks: readonly MethodMark[], setup: Record<string, unknown> = {}) => {
    const { picture } = CHECKS.get(check) as CheckDefinition;
    const shown = await drawn({ picture, setup, marks, result });
    const at = (index: number) => {
      const place = shown.drawn.all('.mark').find((entry) => entry.getAttribute('aria-label')?.startsWith(`place ${index}`));
      let [x, y] = [0, 0];
      for (let node: Element | null = place ?? null; node && node.tagName !== 'svg'; node = node.parentElement) {
        const found = /translate\(([-\d.]+) ([-\d.]+)\)/.exec(node.getAttribute('transform') ?? '');
        if (found) [x, y] = [x + Number(found[1]), y + Number(found[2])];
      }
      return { x, y };
    };
    return { ...shown, at };
  };

  it('a bar in the spindle: farther out is farther right, the side is read below it and from the rear above it', async () => {
    const marks = [
      mark(0, { plane: 'h', at: 20, extreme: 'high' }, '3 div'),
      mark(1, { plane: 'h', at: 290, extreme: 'high' }),
      mark(2, { plane: 'v', at: 290, extreme: 'low' }),
    ];
    const { drawn, at, picked } = await draw('spindle-axis', marks, { bar: { freeLength: 300 } });
    expect(at(1).x).toBeGreaterThan(at(0).x);
    expect(at(2).y).toBeGreaterThan(at(1).y);
    expect(drawn.text()).toContain('high 3');
    drawn.all('.mark')[1].dispatchEvent(new MouseEvent('click'));
    expect(picked).toEqual([1]);
    const rear = await draw('spindle-axis', marks, { side: 'rear' });
    expect(rear.at(1).y).toBeLessThan(at(1).y);
  });

  it('a headstock from the side: the rear bearing left of the front one, the nose right of both', async () => {
    const play = await draw('spindle-play', [
      mark(0, { place: 'front', stroke: 'rest' }),
      mark(1, { place: 'rear', stroke: 'rest' }, '0 div'),
      mark(2, { place: 'rear', stroke: 'lift' }),
    ]);
    expect(play.at(1).x).toBeLessThan(play.at(0).x);
    expect(play.at(2).x).toBeGreaterThan(play.at(1).x);
    expect(play.drawn.text()).toContain('rear bearing');
    const runout = await draw('spindle-runout', [
      mark(0, { feature: 'noseRadial', extreme: 'high' }),
      mark(1, { feature: 'taperFar', extreme: 'high' }),
    ]);
    expect(runout.at(0).x).toBeGreaterThan(play.at(0).x);
    expect(runout.at(1).x).toBeGreaterThan(runout.at(0).x);
  });

  it('the corners of a casting: the rear ones above, the right ones right, each free, pressed and clamped', async () => {
    const marks = ['front left', 'rear right'].flatMap((corner, i) =>
      ['free', 'pressed', 'clamped'].map((state, j) => mark(3 * i + j, { corner, state })),
    );
    const { at } = await draw('seat', marks);
    expect(at(3).y).toBeLessThan(at(0).y);
    expect(at(3).x).toBeGreaterThan(at(0).x);
    expect([at(0).x, at(1).x, at(2).x]).toEqual([...[at(0).x, at(1).x, at(2).x]].sort((a, b) => a - b));
  });

  it('the level across the bed: farther is farther right, its marked end at the operator, its bubble on the high side', async () => {
    const marks = [
      mark(0, { at: 0, end: 'forward' }, '1 div', 20),
      mark(1, { at: 0, end: 'reversed' }, '1 div', 20),
      mark(2, { at: 900, end: 'forward' }, '-2 div', -40),
    ];
    const { drawn, at } = await draw('bed-twist', marks);
    expect(at(2).x).toBeGreaterThan(at(0).x);
    const bubbles = drawn.all('.bubble').map((bubble) => Number(bubble.getAttribute('cy')));
    // Down is the operator's side: + going forward is the operator high, turned end for end it is the rear.
    expect(bubbles).toEqual([8, -8, -16]);
    expect(drawn.text()).not.toContain('div');
  });

  it('a level stepped along a way is tilted as it read; a straightedge is drawn as its gap was read', async () => {
    const steps = [mark(0, { at: 0, end: 'forward' }, '2 div', 40), mark(1, { at: 200, end: 'reversed' }, '2 div', 40)];
    const stepped = await draw('way-straightness', steps, { base: 200, method: 'level-steps' });
    const tilts = stepped.drawn.all('.mark g').map((foot) => Number(/rotate\(([-\d.]+)/.exec(foot.getAttribute('transform') ?? '')?.[1]));
    // The far end high is up on the right, which turns the other way than the clock.
    expect(tilts[0]).toBeLessThan(0);
    expect(tilts[1]).toBeCloseTo(-tilts[0], 9);
    expect(stepped.at(1).y).toBeGreaterThan(stepped.at(0).y);
    const along = [
      mark(0, { at: 0, edge: 'away' }, '0', 0),
      mark(1, { at: 150, edge: 'away' }, '5', 5),
      mark(2, { at: 300, edge: 'away' }, '-5', -5),
    ];
    const edge = await draw('way-straightness', along, { method: 'straightedge' });
    expect(edge.drawn.all('.profile').map((line) => line.getAttribute('d'))).toEqual(['M40 -30 L365 -21 L690 -39']);
  });

  it('the saddle stands over the next place of the tailstock’s way; what comes toward the stylus is drawn toward it', async () => {
    const marks = [mark(0, { at: 0 }, '0', 0), mark(1, { at: 300 }, '6', 6), { ...mark(2, { at: 600 }), state: 'next' as const }];
    const front = await draw('tailstock-way-parallelism', marks, { side: 'operator' });
    expect(front.at(1).y).toBeGreaterThan(front.at(0).y);
    expect(front.drawn.element.querySelector('g:not(.mark)')?.getAttribute('transform')).toBe(`translate(${front.at(2).x} 0)`);
    const rear = await draw('tailstock-way-parallelism', marks, { side: 'rear' });
    expect(rear.at(0).y).toBeLessThan(front.at(0).y);
    expect(rear.at(1).y).toBeLessThan(rear.at(0).y);
  });

  it('a quill is read from the tailstock toward its free end, the side below it and the top above it', async () => {
    const marks = [
      mark(0, { plane: 'h', at: 0 }, '0', 0),
      mark(1, { plane: 'h', at: 100 }, '4', 4),
      mark(2, { plane: 'v', at: 0 }, '0', 0),
      mark(3, { plane: 'v', at: 100 }, '4', 4),
    ];
    const { at } = await draw('quill-parallelism', marks);
    expect(at(1).x).toBeLessThan(at(0).x);
    expect(at(1).y - at(0).y).toBeCloseTo(9, 6);
    expect(at(3).y - at(2).y).toBeCloseTo(-9, 6);
  });

  it('past the centre of a faced disc is toward the rear; the disc turned half round is read right across', async () => {
    const faced = await draw('cross-slide-squareness', [mark(0, { at: 0 }, '0', 0), mark(1, { at: 90 }, '3', 3)], { method: 'faced-disc' });
    expect(faced.at(0).y).toBe(144);
    expect(faced.at(1).y).toBeLessThan(faced.at(0).y);
    expect(faced.at(1).x).toBeGreaterThan(faced.at(0).x);
    expect(faced.drawn.text()).toContain('the tool went here');
    const marks = [mark(0, { at: 0, turn: 0 }), mark(1, { at: 90, turn: 0 }), mark(2, { at: 0, turn: 180 })];
    const across = await draw('cross-slide-squareness', marks, { method: 'reversed-disc' });
    expect(across.at(0).y).toBeGreaterThan(144);
    expect(across.at(1).y).toBeLessThan(144);
    expect(across.drawn.text()).toContain('turned half round');
    expect(across.drawn.text()).not.toContain('the tool went here');
  });

  it('a bar cut in the chuck has no tailstock, and its first pad stands clear of the jaws', async () => {
    const { drawn, at } = await draw('chuck-test-cut', [mark(0, { at: 0 }, '40 mm', 40000), mark(1, { at: 150 })]);
    expect(at(0).x).toBeGreaterThan(140);
    expect(at(1).x).toBeGreaterThan(at(0).x);
    expect(drawn.text()).not.toContain('errors drawn');
  });

  it('a bar in vees and a slide: each reading stands with its word', async () => {
    const vees = await draw('bar-qualification', [
      mark(0, { at: 0, extreme: 'high' }, '3 div', 6),
      mark(1, { at: 300, extreme: 'low' }, '1 div', 2),
    ]);
    expect(vees.drawn.text()).toContain('high 3');
    expect(vees.at(1).x).toBeGreaterThan(vees.at(0).x);
    const gib = await draw('knee-gib-play', [
      mark(0, { stroke: 'push', locks: 'off' }, '3 div', 6),
      mark(1, { stroke: 'pull', locks: 'off' }, '-2 div', -4),
      mark(2, { stroke: 'push', locks: 'on' }),
    ]);
    expect(gib.drawn.text()).toContain('pull -2');
    expect(gib.at(2).y).toBeGreaterThan(gib.at(1).y);
    // Pushed toward the indicator is to the right.
    const [push, pull] = gib.drawn.all('.seen').map((bar) => Number(/M([-\d.]+)/.exec(bar.getAttribute('d') ?? '')?.[1]));
    expect(push).toBeGreaterThan(pull);
  });

  it('readings are drawn off their marks against the first of their row, the largest by the same', () => {
    const marks = [mark(0, { at: 0 }, '4', 4), mark(1, { at: 1 }, '7', 7), mark(2, { at: 2 }, '-2', -2), mark(3, { at: 3 })];
    expect([...drawnOff(marks, 12).values()]).toEqual([0, 6, -12]);
    expect([...drawnOff(marks, 7, undefined, true).values()]).toEqual([4, 7, -2]);
    expect(drawnOff([], 12).size).toBe(0);
  });

  it('the base of an indicator is dragged along its slide, or moved by arrow keys: the set-up follows', async () => {
    TestBed.inject(Settings).system.set('mm');
    const setup = { guideLength: 200, distance: 100 };
    const marks = [mark(0, { stroke: 'push' })];
    const { drawn: shown, sets: set } = await drawn({ setup, marks, result: NOTHING, picture: { drawing: 'push-pull' } });
    const base = shown.all('[role=slider]')[0];
    expect(base.getAttribute('aria-valuetext')).toBe('100 mm');
    base.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight' }));
    expect(set).toEqual([{ distance: '105 mm' }]);

    base.setPointerCapture = () => undefined;
    const box = base.getBoundingClientRect();
    const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
    const send = (type: string, by: number) => base.dispatchEvent(new PointerEvent(type, { clientX: x + by, clientY: y, pointerId: 1 }));
    // Half of the guide's 200 mm is drawn 150 wide of 720.
    const px = (shown.all('svg')[0].getBoundingClientRect().width / 720) * 75;
    send('pointerdown', 0);
    send('pointermove', -px);
    send('pointerup', -px);
    expect(set.length).toBe(2);
    expect(parseFloat(String(set[1]['distance']))).toBeCloseTo(50, -0.3);
  });

  it('a table read as a grid is drawn as one, the higher places bluer', async () => {
    const at = (along: number, across: number, deviation: number | null): MethodMark => mark(0, { at: along, across }, '', deviation);
    const marks = [at(0, 0, 0), at(300, 0, 4), at(300, 100, 8), at(0, 100, null)].map((entry, index) => ({ ...entry, index }));
    const picture: Picture = { drawing: 'table-in-plan', words: { shows: 'table', along: 'x' } };
    const { drawn: shown } = await drawn({ setup: {}, marks, result: NOTHING, picture });
    const placed = shown.all('.mark').map((entry) => shift(entry.getAttribute('transform')));
    expect(placed[1][0]).toBeGreaterThan(placed[0][0]);
    expect(placed[2][1]).withContext('toward the column is up').toBeLessThan(placed[1][1]);
    expect(shown.all('.tile').map((tile) => Number(tile.getAttribute('fill-opacity')))).toEqual([0.05, 0.3, 0.55]);
  });
});
