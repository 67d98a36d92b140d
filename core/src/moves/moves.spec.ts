import { createRequire } from 'node:module';
import fc from 'fast-check';
import type * as z from 'zod';
import { CHECKS } from '../checks/registry.js';
import { FaultError } from '../input/faults.js';
import { fieldInfo } from '../input/fields.js';
import { baseShimThickness } from './baseShims.js';
import { turnEccentric } from './eccentric.js';
import { gibNext, screwOrder } from './gib.js';
import { crossOrder } from './headSteps.js';
import type { StepFacts } from './jobSteps.js';
import { jobSteps, METRIC_WORDS, MOVES, planMove } from './registry.js';
import { chooseLeaves } from './leaves.js';
import { shimTemplate, templateDxf, templateSvg, type ShimOutline } from './template.js';
import { stepsOf } from '../testing/jobs.js';

// Its types describe its ES module, but what Node loads is the parser class itself.
const DxfParser = createRequire(import.meta.url)('dxf-parser') as typeof import('dxf-parser').DxfParser;

const move = (kind: string, input: Record<string, unknown>) => planMove({ format: 'isometra-move/1', move: kind, ...input });

describe('turning an adjuster', () => {
  it('gives turns, degrees and the needle', () => {
    const plan = move('adjuster', { amount: '21 um', pitch: 1.5, indicator: { now: 3, graduation: '2 um', rises: false } });
    expect(plan['turns']).toBeCloseTo(0.014, 9);
    expect(plan['degrees']).toBeCloseTo(5.04, 9);
    expect(plan['target']).toBeCloseTo(-7.5, 9);
    expect(move('adjuster', { amount: 30, pitch: 1.5, gain: 0.5 })['turns']).toBeCloseTo(0.04, 9);
  });

  it('names what is wrong', () => {
    expect(() => planMove({ move: 'adjuster', amount: 'lots', pitch: 0, wrench: 1 })).toThrowMatching(
      (error) =>
        error instanceof FaultError &&
        error.faults
          .map((fault) => fault.path)
          .sort()
          .join() === 'amount,format,pitch,wrench',
    );
    expect(() => move('adjustr', {})).toThrowMatching((error) => error.faults[0].example === 'adjuster');
    expect(() => planMove(null)).toThrowError(FaultError);
  });
});

describe('shim leaves', () => {
  const stock = fc.array(fc.record({ thickness: fc.integer({ min: 10, max: 300 }), count: fc.integer({ min: 0, max: 3 }) }), {
    maxLength: 5,
  });

  it('are the fewest that do, and only from the stock', () => {
    fc.assert(
      fc.property(stock, fc.integer({ min: 10, max: 900 }), (piles, thickness) => {
        const leaves = piles.flatMap((pile) => Array<number>(pile.count).fill(pile.thickness));
        let fewest = Infinity;
        for (let mask = 1; mask < 1 << leaves.length; mask++) {
          const chosen = leaves.filter((_, i) => mask & (1 << i));
          if (chosen.length <= 4 && Math.abs(chosen.reduce((a, b) => a + b, 0) - thickness) <= 5) fewest = Math.min(fewest, chosen.length);
        }
        const plan = chooseLeaves(thickness, piles);
        expect(plan.leaves?.length ?? Infinity).toBe(fewest);
        const left = [...leaves];
        for (const leaf of plan.leaves ?? []) {
          expect(left).toContain(leaf);
          left.splice(left.indexOf(leaf), 1);
        }
      }),
      { numRuns: 150 },
    );
  });

  it('gives the nearest below and above when nothing fits', () => {
    const plan = chooseLeaves(130, [
      { thickness: 50, count: 2 },
      { thickness: 200, count: 1 },
    ]);
    expect(plan.leaves).toBeNull();
    expect(plan.below?.total).toBe(100);
    expect(plan.above?.total).toBe(200);
    expect(chooseLeaves(10, []).below).toBeNull();
  });
});

describe('thinner shims in the place of those that went in', () => {
  const stock = [{ thickness: '0.05 mm', count: 4 }];

  it('come from the drawers and from what comes out', () => {
    expect(move('swap-leaves', { by: 25, out: [75], stock })).toEqual(jasmine.objectContaining({ out: [75], thickness: 50, leaves: [50] }));
    expect(move('swap-leaves', { by: 50, out: [50, 20], stock: [] })).toEqual(jasmine.objectContaining({ thickness: 20, leaves: [20] }));
  });
  it('are never the same leaves again, and none where none are wanted', () => {
    expect(move('swap-leaves', { by: 4, out: [75], stock: [] })).toEqual(jasmine.objectContaining({ leaves: null }));
    expect(move('swap-leaves', { by: 75, out: [75], stock })).toEqual(jasmine.objectContaining({ leaves: [], total: 0 }));
  });
  it('bring it within half of what is wanted, whatever the drawer', () => {
    const leaves = fc.array(fc.integer({ min: 5, max: 200 }), { minLength: 1, maxLength: 4 });
    fc.assert(
      fc.property(leaves, leaves, fc.double({ min: 0.05, max: 1, noNaN: true }), (out, drawer, part) => {
        const all = out.reduce((sum, leaf) => sum + leaf, 0);
        const by = part * all;
        const plan = move('swap-leaves', { by, out, stock: drawer.map((thickness) => ({ thickness, count: 1 })) });
        const inAgain = plan['leaves'] as number[] | null;
        if (!inAgain?.length) return;
        const lowered = all - inAgain.reduce((sum, leaf) => sum + leaf, 0);
        expect(Math.abs(lowered - by)).toBeLessThanOrEqual(by / 2 + 1e-6);
      }),
    );
  });
});

describe('an eccentric sleeve', () => {
  it('the second card starts where the first left the sleeve: −33.7° and on to −46.2°, not from 0°', () => {
    const first = turnEccentric(100, 0, 100 * Math.sin((-33.7 * Math.PI) / 180));
    expect(first.angle).toBeCloseTo(-33.7, 6);
    const left = 100 * (Math.sin((-46.2 * Math.PI) / 180) - Math.sin((-33.7 * Math.PI) / 180));
    expect(turnEccentric(100, first.angle, left).angle).toBeCloseTo(-46.2, 6);
    // From 0° the same card would have brought it back by 39 µm.
    expect(100 * Math.sin((turnEccentric(100, 0, left).angle * Math.PI) / 180) - 100 * Math.sin((first.angle * Math.PI) / 180)).toBeCloseTo(
      38.8,
      1,
    );
    expect(MOVES.get('eccentric')?.standsAt?.(first, true)).toEqual({ eccentric: { angle: '-33.7 deg' } });
    expect(MOVES.get('eccentric')?.standsAt?.(first, false)).toEqual({ eccentric: { angle: '0 deg' } });
  });

  it('0.178 mm is more than a throw of 0.1 mm has: how far it gets is told', () => {
    const far = turnEccentric(100, 0, 178);
    expect(far).toEqual(jasmine.objectContaining({ angle: 90, reach: 100 }));
    expect(far.heightChange).toBeCloseTo(-100, 9);
    // From 30° it has given 50 already: back in its middle the ways have 228 to do.
    expect(turnEccentric(100, 30, 178)).toEqual(jasmine.objectContaining({ ways: jasmine.any(Number) }));
    expect((turnEccentric(100, 30, 178) as { ways: number }).ways).toBeCloseTo(228, 6);
    const card = stepsOf('eccentric', { direction: 'toward you', plan: { reach: 100, ways: 178 } });
    expect(card.some(({ text }) => text.includes('The sleeve can move it 0.100 mm and no further'))).toBeTrue();
    expect(card.some(({ text }) => text.includes('choose “sleeve to its middle, and move the body”'))).toBeTrue();
  });

  it('set back to its middle the body does the amount and what the sleeve gave, whichever way that is', () => {
    const middle = MOVES.get('sleeve-middle');
    const plan = (angle: number, amount: number) => middle?.plan?.({ throw: 100, angle, amount }) ?? {};
    // By pencil: at 30° the sleeve holds it 50 toward the operator. 178 more are 228 of the body; 20 away are 30 toward.
    expect(plan(30, 178)['ways']).toBeCloseTo(228, 9);
    expect(plan(30, -20)['ways']).toBeCloseTo(30, 9);
    expect(plan(30, 0)['turn']).toBe(-30);
    expect(plan(30, 0)['heightChange']).toBeCloseTo(100 * (1 - Math.cos(Math.PI / 6)), 9);
    const texts = stepsOf('sleeve-middle', { direction: 'away from you', amount: -20, plan: plan(30, -20) }).map(({ text }) => text);
    expect(texts.some((text) => text.includes('turn it by 30.0° clockwise, seen from the tailstock’s end, back to 0°'))).toBeTrue();
    expect(texts.some((text) => text.includes('0.030 mm the other way'))).toBeTrue();
    expect(middle?.standsAt?.(plan(30, 0), true)).toEqual({ eccentric: { angle: '0 deg' } });
    expect(middle?.standsAt?.(plan(30, 0), false)).toEqual({ eccentric: { angle: '30 deg' } });
    // In its middle already, nothing is turned.
    const straight = stepsOf('sleeve-middle', { direction: 'toward you', amount: 20, plan: plan(0, 20) });
    expect(straight.some(({ text }) => text.includes('lock of the sleeve'))).toBeFalse();
  });

  it('moves by the amount, by the shorter turn, and says what the height does', () => {
    const amount = fc.double({ min: -500, max: 500, noNaN: true });
    fc.assert(
      fc.property(fc.double({ min: -180, max: 180, noNaN: true }), amount, (angle, wanted) => {
        const plan = turnEccentric(400, angle, wanted);
        const at = (degrees: number) => [400 * Math.sin((degrees * Math.PI) / 180), 400 * Math.cos((degrees * Math.PI) / 180)];
        const [h0, v0] = at(angle);
        const [h1, v1] = at(plan.angle);
        expect(h1 - h0).toBeCloseTo('reach' in plan ? plan.reach : wanted, 6);
        expect(v1 - v0).toBeCloseTo(plan.heightChange, 6);
        expect(Math.abs(plan.turn)).toBeLessThanOrEqual(180.0001);
        if ('reach' in plan) expect(Math.abs(plan.reach)).toBeLessThanOrEqual(Math.abs(wanted) + 1e-9);
      }),
    );
  });
});

describe('shims under a base', () => {
  it('are equal when the barrel only comes up, and different when it turns too', () => {
    expect(baseShimThickness(50, 0, 160, 60)).toEqual({ front: 50, rear: 50, lift: 50 });
    fc.assert(
      fc.property(fc.double({ min: -200, max: 200, noNaN: true }), fc.double({ min: -300, max: 300, noNaN: true }), (lift, slope) => {
        const { front, rear } = baseShimThickness(lift, slope, 160, 60);
        // The free end stands forward of the front shim: what raises the front more than the rear raises it.
        expect(((front - rear) / 160) * 1000).toBeCloseTo(slope, 9);
        expect(front + ((front - rear) / 160) * 60).toBeCloseTo(lift, 9);
      }),
    );
  });

  it('leave one end down where only the slope matters, and say what the centre does', () => {
    expect(baseShimThickness(undefined, 100, 200, 60)).toEqual({ front: 20, rear: 0, lift: 26 });
    expect(baseShimThickness(undefined, -100, 200, 60)).toEqual({ front: 0, rear: 20, lift: -6 });
    expect(() => move('base-shims', { length: 160 })).toThrowMatching((error) => error.faults[0].path === 'lift');
  });

  it('cannot lower anything', () => {
    expect(() => move('base-shims', { lift: -20, length: 160 })).toThrowMatching((error) => error.faults[0].path === 'lift');
    expect(move('base-shims', { lift: 50, length: 160, stock: [{ thickness: 50, count: 1 }] })['frontLeaves']).toEqual(
      jasmine.objectContaining({ leaves: [50] }),
    );
  });
});

describe('an angle', () => {
  it('becomes a thickness over the distance between the supports, and travel at a screw', () => {
    const stock = [{ thickness: 20, count: 4 }];
    expect(move('shim-leaves', { slope: 125, over: 320, stock })).toEqual(jasmine.objectContaining({ thickness: 40, leaves: [20, 20] }));
    expect(move('adjuster', { slope: -80, over: 150, pitch: 1.5 })['turns']).toBeCloseTo(-12 / 1500, 9);
  });

  it('without its distance is asked for it, and so is a move without any amount', () => {
    for (const [kind, more, path] of [
      ['shim-leaves', { stock: [] }, 'over'],
      ['adjuster', { pitch: 1.5 }, 'over'],
    ] as const) {
      expect(() => move(kind, { slope: 100, ...more })).toThrowMatching((error) => error.faults[0].path === path);
      expect(() => move(kind, more)).toThrowMatching((error) => /thickness|amount/.test(error.faults[0].path));
    }
  });

  it('of a check is never taken for a thickness: the kinds that a correction names take what it is in, or are told how', () => {
    for (const check of CHECKS.values())
      for (const [name, { plus, minus }] of Object.entries(check.corrections))
        for (const kind of new Set([...plus, ...minus])) {
          const definition = MOVES.get(kind);
          if (!definition?.amountKey || check.amountFor) continue;
          const { dimension } = check.quantities[name];
          const key = dimension === 'slope' ? (definition.slopeKey ?? definition.amountKey) : definition.amountKey;
          expect(fieldInfo(definition.input.shape[key] as z.ZodType)?.dimension)
            .withContext(`${check.id} ${name} ${kind}`)
            .toBe(dimension);
        }
  });
});

describe('a cutting template', () => {
  const outline: ShimOutline = {
    length: 160,
    width: 90,
    bolts: [
      { x: 40, y: 45, diameter: 12 },
      { x: 120, y: 45, diameter: 12 },
    ],
    handle: { x: 80, width: 30, depth: 20 },
  };

  it('read back from DXF is the base less its clearances, at 1:1', () => {
    const drawing = new DxfParser().parseSync(templateDxf(shimTemplate(outline)));
    // eslint-disable-next-line @typescript-eslint/no-explicit-any
    const entities = (drawing?.entities ?? []) as any[];
    const lines = entities.filter((entity) => entity.type === 'LINE');
    const xs = lines.flatMap((line) => line.vertices.map((vertex: { x: number }) => vertex.x));
    const ys = lines.flatMap((line) => line.vertices.map((vertex: { y: number }) => vertex.y));
    expect([Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]).toEqual([1, 159, 1, 89]);
    for (const [i, line] of lines.entries()) expect(line.vertices[1]).toEqual(lines[(i + 1) % lines.length].vertices[0]);
    const circles = entities.filter((entity) => entity.type === 'CIRCLE').map(({ center, radius }) => [center.x, center.y, radius]);
    expect(circles).toEqual([
      [40, 45, 7],
      [120, 45, 7],
    ]);
    expect(drawing?.header['$INSUNITS']).toBe(4);
  });

  it('read back from SVG has its size in millimetres and the same holes', () => {
    const svg = templateSvg(shimTemplate(outline), 'L-14 <base>');
    expect(svg).toContain('width="160mm" height="90mm" viewBox="0 0 160 90"');
    expect([...svg.matchAll(/<circle cx="(\S+)" cy="(\S+)" r="(\S+)"/g)].map((found) => found.slice(1, 4).map(Number))).toEqual([
      [40, 45, 7],
      [120, 45, 7],
    ]);
    expect(svg).not.toContain('<base>');
  });

  it('refuses a bolt or a handle outside the base', () => {
    expect(() => shimTemplate({ ...outline, bolts: [{ x: 2, y: 45, diameter: 12 }] })).toThrowError(/bolt at 2, 45/);
    expect(() => shimTemplate({ ...outline, handle: { x: 5, width: 30, depth: 20 } })).toThrowError(/handle/);
  });
});

describe('a job card', () => {
  const facts = {
    size: '0.021 mm',
    direction: 'toward you',
    plus: true,
    plan: { turns: 0.014 },
    where: 'on the quill, zeroed',
    needle: 'from 0 to 10.5 div',
    part: CHECKS.get('tailstock-traverse')?.part,
  };

  it('slacks the side it moves toward, then drives the other', () => {
    const steps = stepsOf('adjuster', facts).map((step) => step.text);
    const slack = steps.findIndex((text) => text.includes('Slack the screw on the side it moves toward (your side)'));
    const drive = steps.findIndex((text) => text.includes('Drive the other screw'));
    expect(slack).toBeGreaterThan(-1);
    expect(drive).toBe(slack + 1);
    expect(stepsOf('adjuster', { ...facts, plus: false }).some((step) => step.text.includes('the rear'))).toBeTrue();
    const onCard = { adjuster: { thirdScrew: true, screwsSit: 'low at the tail end' } };
    const third = stepsOf('adjuster', { ...facts, card: onCard }).map((step) => step.text);
    const at = (words: string) => third.findIndex((text) => text.includes(words));
    expect(at('Slack the third screw')).toBeLessThan(at('The screws sit low at the tail end. Slack the screw'));
    expect(at('Nip the third screw up')).toBeGreaterThan(at('Bring the slack screw up'));
    const single = { adjuster: { layout: 'single-screw' } };
    expect(stepsOf('adjuster', { ...facts, card: single }).some((step) => step.text.includes('Slack the screw'))).toBeFalse();
  });

  it('of shims in a joint zeroes the dial before anything is loosened', () => {
    const plan = { leaves: [50], shim: 50, truck: 'rear', end: 'right', out: [75] };
    for (const kind of ['shim-leaves', 'base-shims', 'swap-leaves', 'trucks', 'truck-lift', 'way-shims']) {
      const texts = stepsOf(kind, { ...facts, plan }).map(({ text }) => text);
      const zero = texts.findIndex((text) => text.includes('Zero it before anything is loosened'));
      const loosened = texts.findIndex(
        (text) => /^(Loosen|Take the weight)|Clean and deburr|[Ll]oosen the/.test(text) && !text.includes('Zero it'),
      );
      expect(zero).withContext(kind).toBeGreaterThan(-1);
      expect(loosened).withContext(kind).toBeGreaterThan(zero);
    }
  });

  // A register is no part that a hand moves and a clamp holds.
  it('of every kind watches a needle, logs the shift and ends with a new round', () => {
    for (const kind of [
      ...[...MOVES.values()].filter((move) => move.steps && move.kind !== 'stored-offset').map((move) => move.kind),
      'something-else',
    ]) {
      const steps = stepsOf(kind, facts);
      expect(steps.some((step) => step.shift))
        .withContext(kind)
        .toBeTrue();
      expect(steps.some((step) => step.caution))
        .withContext(kind)
        .toBeTrue();
      expect(steps.some((step) => step.text.includes('10.5 div')))
        .withContext(kind)
        .toBeTrue();
      expect(steps.at(-1)?.text).toContain('new round');
    }
  });

  it('names the leaves at each end when they differ', () => {
    expect(
      stepsOf('base-shims', { ...facts, plan: { frontLeaves: { leaves: [50] } } }).some((step) =>
        step.text.includes('front 0.050 mm; rear none'),
      ),
    ).toBeTrue();
  });
});

describe('the words of a job card', () => {
  const facts = { size: '0.012 mm', direction: '', plus: false };
  const told = (kind: string, more: Parameters<typeof stepsOf>[1]) =>
    stepsOf(kind, { ...facts, ...more })
      .map((step) => `${step.text} ${step.caution ?? ''}`)
      .join(' ');

  it('speak of what the check moves: every check with a scraped, shimmed or screwed correction says what that is', () => {
    for (const check of CHECKS.values()) {
      const kinds = Object.values(check.corrections).flatMap(({ plus, minus }) => [...plus, ...minus]);
      const worded = kinds.filter((kind) => ['scrape', 'shim-leaves', 'base-shims', 'adjuster'].includes(kind));
      if (worded.length === 0) continue;
      expect(check.part).withContext(check.id).toBeDefined();
      for (const kind of worded)
        if (!check.id.startsWith('tailstock-') && check.id !== 'quill-parallelism')
          expect(told(kind, { part: check.part }))
            .withContext(`${check.id} ${kind}`)
            .not.toContain('the tailstock');
    }
  });

  it('take metal off evenly, as a wedge, or where it stands high', () => {
    const part = CHECKS.get('way-straightness')?.part;
    expect(told('scrape', { part, spread: 'high-places' })).toContain('Take the high places of the way');
    expect(told('scrape', { part })).not.toContain('Lift');
    const quill = CHECKS.get('quill-parallelism')?.part;
    expect(told('scrape', { part: quill, spread: 'wedge', direction: 'raise its free end' })).toMatch(
      /Take a wedge off the faces of the base .* 0\.012 mm over their length, to raise its free end\./,
    );
    expect(told('scrape', { part: quill, direction: 'down' })).toContain('evenly, so that it comes down');
    expect(told('scrape', { part: quill })).toContain('Lift with rated gear');
    expect(told('base-shims', { part: quill, amount: 80, plan: { lift: 26 } })).toContain('The centre comes up by 0.026 mm');
  });
});

describe('the other moves', () => {
  it('feet: half up, half down, and a springy bed', () => {
    expect(move('feet', { roll: 40, track: '450 mm', pitch: 2 })).toEqual(jasmine.objectContaining({ raise: 18, each: 9, turns: 0.0045 }));
    expect(move('feet', { roll: 40, track: 450, pitch: 2, gain: 0.5 })['turns']).toBeCloseTo(0.009, 9);
  });

  it('shims under the low feet: the whole raise under one side, out of the drawer', () => {
    const stock = [{ thickness: 10, count: 4 }];
    expect(move('feet-shims', { roll: -40, track: '500 mm', stock })).toEqual(
      jasmine.objectContaining({ raise: -20, leaves: [10, 10], total: 20, error: 0 }),
    );
    expect(move('feet-shims', { roll: 40, track: 500 })).toEqual(jasmine.objectContaining({ raise: 20 }));
  });

  it('a way is pulled over at both ends', () => {
    const plan = move('pull', { slope: '-30 um/m', offset: '10 um', length: '900 mm', pitch: 1.5 });
    expect(plan['far']).toBeCloseTo(-17, 9);
    expect(plan['farTurns']).toBeCloseTo(-17 / 1500, 9);
  });

  it('a wedge is taken off in steps that leave no more than half a pass anywhere', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 80, noNaN: true }),
        fc.double({ min: 3, max: 12, noNaN: true }),
        fc.nat(3),
        (wedge, passDepth, straightDown) => {
          const { zones, passes, zonePasses } = move('step-scrape', { wedge, length: 300, passDepth, straightDown }) as unknown as {
            zones: { from: number; to: number; passes: number }[];
            passes: { from: number; to: number }[];
            zonePasses: number;
          };
          for (const zone of zones) {
            const middle = (zone.from + zone.to) / 2;
            expect(passes.filter((pass) => pass.from <= middle && pass.to >= middle).length).toBe(zone.passes);
          }
          expect(zonePasses).toBe(zones.reduce((sum, zone) => sum + zone.passes, 0));
          // Nowhere is more than half a pass left standing, or taken too much.
          for (const { from, to, passes: given } of zones)
            for (const at of [from, to])
              expect(Math.abs((wedge * at) / 300 - (given - straightDown) * passDepth)).toBeLessThanOrEqual(passDepth / 2 + 1e-6);
        },
      ),
    );
  });

  it('a sine plate is stacked from a slope or from an error over a length', () => {
    expect(move('sine-stack', { slope: 120, rolls: 100 })['stack']).toBeCloseTo(12, 9);
    expect(move('sine-stack', { error: '24 um', over: 200, rolls: 100 })['stack']).toBeCloseTo(12, 9);
    expect(() => move('sine-stack', { rolls: 100 })).toThrowMatching((error) => error.faults[0].path === 'slope');
  });

  it('what is turned on its bolts is tapped until both ends of the flat read alike, what stands off an axis until both sides do', () => {
    const card = (spread: 'wedge' | 'even') =>
      stepsOf('nudge', { size: '0.02 mm', direction: 'toward you', spread })
        .map(({ text }) => text)
        .join(' ');
    expect(card('wedge')).toContain('both ends of the flat come to read alike');
    expect(card('wedge')).not.toContain('half a turn apart');
    expect(card('even')).toContain('half a turn apart, become alike');
    expect(card('even')).toContain('Leave the control alone');
  });

  it('a gib goes by feel: one or two eighths, never again to where it was stiff', () => {
    const felt = (...pairs: readonly (readonly [number, number])[]) => pairs.map(([eighths, drag]) => ({ eighths, drag }));
    expect(gibNext(6, [])).toEqual({ given: 0, now: 2, why: 'go-on' });
    expect(gibNext(6, felt([2, 1], [1, 2]))).toEqual({ given: 3, now: 1, why: 'go-on' });
    expect(gibNext(6, felt([2, 1], [2, 4]))).toEqual({ given: 4, now: -1, why: 'stiff' });
    expect(gibNext(6, felt([2, 1], [2, 4], [-1, 3]))).toEqual({ given: 3, now: 0, why: 'by-feel' });
    expect(gibNext(3, felt([2, 1], [1, 2])).why).toBe('all-given');
    expect(gibNext(undefined, felt([1, 1])).now)
      .withContext('a gib that is not known goes by feel alone')
      .toBe(1);
    expect(screwOrder(4)).toEqual([2, 3, 1, 4]);
    const facts = {
      size: '',
      direction: '',
      plus: true,
      plan: {},
      words: METRIC_WORDS,
      part: { name: 'gib of the knee', faces: 'gib', slide: 'knee' },
    };
    const card = { gibs: [{ slide: 'knee', straight: true, screws: 5, pitch: 1.5 }] };
    expect(
      jobSteps('gib', { ...facts, card } as StepFacts)
        .map(({ text }) => text)
        .join(' '),
    ).toContain('in this order: 3, 2, 4, 1, 5');
  });

  it('what comes next of a gib is said once: beside the steps as soon as something was felt', () => {
    const facts = { size: '20 µm', direction: '', plus: true, plan: { eighths: 6, now: 2 }, words: METRIC_WORDS, card: {} };
    const text = (more: object) =>
      jobSteps('gib', { ...facts, ...more } as StepFacts)
        .map(({ text: own }) => own)
        .join(' ');
    expect(text({})).toContain('2 eighths of a turn now, of 6 in all');
    expect(text({ byFeel: true })).not.toContain('2 eighths');
  });

  it('tilt and nod of a head have bolts of their own where the card tells them apart', () => {
    const facts = {
      size: '',
      direction: 'right',
      plus: true,
      plan: {},
      words: METRIC_WORDS,
      part: { name: 'head', faces: 'head', swivels: true },
    };
    const text = (quantity: string, head: object) =>
      jobSteps('adjuster', { ...facts, quantity, card: { head } } as unknown as StepFacts)
        .map(({ text: own }) => own)
        .join(' ');
    expect(text('nod', { bolts: 4, nodBolts: 3 })).toContain('Loosen the 3 bolts that hold the nod by half a turn');
    expect(text('nod', { bolts: 4, nodBolts: 3 })).toContain('Those that hold the tilt stay tight.');
    expect(text('nod', { bolts: 4, nodBolts: 3 })).toContain(`bolts ${crossOrder(3).join(', ')}, and round again`);
    expect(text('tilt', { bolts: 4, nodBolts: 3 })).toContain('Loosen the 4 bolts of the head');
    expect(
      MOVES.get('adjuster')?.screws?.({ head: { tiltBolts: 6 } }, { name: 'head', faces: '', swivels: true } as never, 'tilt')?.bolts,
    ).toBe(6);
  });

  it('a gib turns in whole eighths', () => {
    expect(move('gib', { excess: 20, taper: 60, pitch: 1.5, angle: 55 })['perTurn']).toBeCloseTo(25 / Math.sin((55 * Math.PI) / 180), 6);
  });

  it('when less than a layer is left the joint must come down first', () => {
    expect(move('bearing-shims', { lift: 60, clearance: 20, shim: 0.04, layer: 25 })).toEqual(
      jasmine.objectContaining({ remove: 40, layers: 1, jointMustComeDown: true }),
    );
    expect(move('bearing-shims', { lift: 10, clearance: 20, shim: 0.3, layer: 25 })['remove']).toBe(0);
  });

  it('a stored offset changes by half the two readings, twice that in diameter, in its own unit', () => {
    const inch = move('stored-offset', { old: '12 in', totalReading: '2 thou', programming: 'diameter' });
    expect(inch['plus']).toBeCloseTo(12.002, 9);
    const jogged = (after: number) =>
      move('stored-offset', { old: 300, totalReading: 100, jog: { by: 0.02, reading: { before: 100, after } } });
    expect(jogged(60)['chosen']).toBeCloseTo(300.05, 9);
    expect(jogged(140)['chosen']).toBeCloseTo(299.95, 9);
    expect(jogged(60)['ifWrong']).toBe(200);
    const off = move('stored-offset', { old: 300, totalReading: 100, entered: 300.05 });
    expect(off['meaning']).toBeUndefined();
    const again = (recheck: number, more: Record<string, unknown> = {}) => {
      const said = move('stored-offset', { old: 300, totalReading: 100, entered: 300.05, recheck, ...more });
      return [said['meaning'], said['meanings'], said['next']];
    };
    // Without its sign +1 and −1 look alike, and 0.96 with them; 2 is 2.
    expect(again(-100)).toEqual(['doubled', undefined, 300.025]);
    expect(again(100, { recheckSigned: false })).toEqual(['unclear', ['not-taken-up', 'doubled'], null]);
    expect(again(200, { recheckSigned: false })[0]).toBe('wrong-sign');
    expect(again(-200, { recheckSigned: false })[0])
      .withContext('whichever was typed')
      .toBe('wrong-sign');
    // Its doubt reaches what stands beside it.
    expect(again(100, { doubt: 1 })[0]).toBe('not-taken-up');
    expect(again(100, { doubt: 4 })).toEqual(['unclear', ['not-taken-up', 'inch-as-mm'], null]);
    expect(again(6, { doubt: 2 })).toEqual(['right', undefined, 300.05]);
    expect(() => move('stored-offset', { old: 300, totalReading: 100, recheck: 3, recheckSigned: 'no' })).toThrowMatching(
      ({ faults }: FaultError) => faults[0].path === 'recheckSigned' && faults[0].message === 'must be true or false',
    );
    // A ratio between nothing done and an inch is neither: nothing is offered that a look at the register would tell better.
    for (const recheck of [84, 90, 94, 98]) expect(again(recheck)[0]).not.toBe('inch-as-mm');
    expect(again(90)).toEqual(['not-taken-up', undefined, 300.05]);
    expect(again(25)[0]).toBe('fell-short');
    expect(again(25)[2]).toBeCloseTo(300 + 0.05 / 0.75, 9);
    expect(again(96.06)).toEqual(['unclear', ['not-taken-up', 'inch-as-mm'], null]);
    // What the register shows is what was really entered.
    expect(again(90, { shown: 300.045 })).toEqual(['mistyped', undefined, 300.05]);
    expect(again(96.06, { shown: 300 + 0.05 / 25.4 })).toEqual(['inch-as-mm', undefined, 300.05]);
    expect(again(100, { shown: 300 })).toEqual(['not-taken-up', undefined, 300.05]);
    expect(again(96.06, { shown: 300.05 })).toEqual(['not-taken-up', undefined, 300.05]);
    expect(move('stored-offset', { old: 300, totalReading: 100, entered: 300.05, shown: 300.5 })['meaning']).toBe('mistyped');
    // Nobody knows the sign of a value that nobody wrote down: there is none to enter next.
    expect(move('stored-offset', { old: 300, totalReading: 100, recheck: -100 })['next']).toBeNull();
    const pair = move('stored-offset', { old: 300, totalReading: 100, jog: { by: 0.02, reading: ['100 um', '140 um'] } });
    expect(pair['chosen']).toBeCloseTo(299.95, 9);
  });
});
