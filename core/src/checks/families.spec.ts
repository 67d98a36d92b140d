import fc from 'fast-check';
import { solve } from '../solve/solve.js';
import { partRunout } from './runout.js';
import { widthAtCorner } from './catalogue/dovetailOverPins.js';

type Raw = Record<string, unknown>;
const lever = { kind: 'lever', graduation: '2 um', sense: 1 };
const sheet = (check: string, setup: Raw, readings: Raw[], more: Raw = {}) => ({
  format: 'isometra-sheet/1',
  check,
  instrument: lever,
  setup,
  readings,
  ...more,
});
const value = (raw: unknown, name: string): number => solve(raw).quantities[name].value;
const codes = (raw: unknown): string[] => solve(raw).notes.map((note) => note.code);

describe('play', () => {
  const push = (stroke: string, reading: string, more: Raw = {}) => ({ stroke, value: reading, ...more });

  it('swing has a size, the clearance is estimated at the guide', () => {
    const gib = (distance: number) =>
      sheet('knee-gib-play', { guideLength: 200, distance }, [push('push', '60 um'), push('pull', '-20 um')]);
    expect(value(gib(400), 'swing')).toBeCloseTo(80, 9);
    expect(value(gib(400), 'clearance')).toBeCloseTo(20, 9);
    expect(value(gib(10), 'clearance')).toBeCloseTo(80, 9);
  });

  it('locks on and off are kept apart, and feel is data', () => {
    const readings = [
      push('push', '60 um'),
      push('pull', '0 um'),
      push('push', '8 um', { locks: 'on' }),
      push('pull', '2 um', { locks: 'on' }),
      { drag: 2, at: 50 },
      { drag: 4, at: 200 },
    ];
    const finding = solve(sheet('table-gib-play', { guideLength: 200, distance: 100 }, readings));
    expect(finding.quantities['swingLocked'].value).toBeCloseTo(6, 9);
    expect(finding.notes.find((note) => note.code === 'tightest-place')?.text).toContain('200 mm');
  });

  it('a gib is driven by its clearance, less of it', () => {
    const [move] = solve(
      sheet('knee-gib-play', { guideLength: 200, distance: 200 }, [push('push', '120 um'), push('pull', '0 um')], {
        hardware: { gib: { taper: 50, pitch: '2 mm' } },
      }),
    ).moves;
    // 100 µm of swing too much is 50 µm of clearance; 40 µm a turn.
    expect(move).toEqual(jasmine.objectContaining({ kind: 'gib', eighths: 10 }));
  });

  it('compliance is for 100 N', () => {
    expect(value(sheet('stiffness', { force: '50 N' }, [push('push', '6 um'), push('pull', '-4 um')]), 'compliance')).toBeCloseTo(10, 9);
    expect(value(sheet('stiffness', { force: '200 N' }, [push('push', '6 um'), push('rest', '0 um')]), 'compliance')).toBeCloseTo(3, 9);
  });

  it('a seat that rocks makes geometry that is not to be trusted', () => {
    const corner = (name: string, state: string, reading: string) => ({ corner: name, state, value: reading });
    const rocking = sheet('seat', {}, [
      corner('a', 'free', '0 um'),
      corner('a', 'pressed', '-6 um'),
      corner('b', 'free', '0 um'),
      corner('b', 'pressed', '1 um'),
      corner('b', 'clamped', '2 um'),
    ]);
    expect(value(rocking, 'rock')).toBeCloseTo(6, 9);
    expect(value(rocking, 'clampShift')).toBeCloseTo(2, 9);
    expect(codes(rocking)).toContain('seat-rocks');
    expect(codes(sheet('seat', {}, [corner('a', 'free', '0 um'), corner('a', 'pressed', '1 um')]))).not.toContain('seat-rocks');
  });

  it('spindle lift read at the nose is brought back to the bearing', () => {
    const lift = (place: string, stroke: string, reading: string) => ({ place, stroke, value: reading });
    const raw = sheet('spindle-play', { span: 300, overhang: 60 }, [
      lift('front', 'rest', '0 um'),
      lift('front', 'lift', '60 um'),
      lift('rear', 'rest', '0 um'),
      lift('rear', 'lift', '20 um'),
    ]);
    expect(value(raw, 'liftFront')).toBeCloseTo(50, 9);
    expect(value(raw, 'liftRear')).toBeCloseTo(20, 9);
    const dragging = (drag: number) => codes({ ...raw, readings: [...raw.readings, { drag, at: 0 }] });
    expect(dragging(4)).toContain('stop');
    expect(dragging(3)).not.toContain('stop');
    // 35 µm and 25 µm at the bearing: a plain one may have 30.
    const nose = (reading: string) =>
      sheet('spindle-play', { span: 300, overhang: 60 }, [
        lift('front', 'rest', '0 um'),
        lift('front', 'lift', reading),
        { drag: 5, at: 0 },
      ]);
    expect(codes(nose('42 um'))).toContain('stop');
    expect(codes(nose('30 um'))).not.toContain('stop');
  });

  it('one degree from top to bottom bows a bed of 1500 × 300 by 11 µm, and more where it is longer', () => {
    const bowed = (steps: number, temperatureDifference: number) =>
      solve(
        sheet(
          'way-straightness',
          { method: 'level-steps', base: 150, temperatureDifference, bedDepth: 300 },
          Array.from({ length: steps }, (_, i) => [
            { at: 75 + 150 * i, value: '0 um/m', end: 'forward' },
            { at: 75 + 150 * i, value: '0 um/m', end: 'reversed' },
          ]).flat(),
          { instrument: { kind: 'level', graduation: '20 um/m' } },
        ),
      ).notes.find(({ code }) => code === 'temperature-bow')?.text;
    expect(bowed(10, 1)).toMatch(/warmer on top: that alone bows it up in the middle by about 11 µm/);
    expect(bowed(10, -2)).toMatch(/colder on top: that alone bows it down in the middle by about 22 µm/);
    expect(bowed(5, 1)).toMatch(/about 2\.7 µm/);
    expect(bowed(10, 0)).toBeUndefined();
  });
});

describe('hardware that takes its input from the call', () => {
  it('bearing shims: the lift measured and the clearance aimed at', () => {
    const lift = (stroke: string, reading: string) => ({ place: 'front', stroke, value: reading });
    const raw = sheet('spindle-play', {}, [lift('rest', '0 um'), lift('lift', '60 um')], {
      hardware: { 'bearing-shims': { shim: '0.3 mm', layer: '25 um' } },
    });
    expect(solve(raw).moves).toEqual([
      jasmine.objectContaining({ kind: 'bearing-shims', remove: 40, layers: 1, jointMustComeDown: false }),
    ]);
  });

  it('supports: what is out is wanted, what is in is held', () => {
    const reading = (plane: string, at: number, value: string) => ['high', 'low'].map((extreme) => ({ plane, at, extreme, value }));
    const readings = [
      ...reading('h', 20, '0 um'),
      ...reading('h', 320, '6 um'),
      ...reading('v', 20, '0 um'),
      ...reading('v', 320, '-30 um'),
    ];
    const face = (id: string, z: number, normal: number[], h: number) => ({ id, at: [z, 0, h], normal, allow: 'either' });
    const root = Math.SQRT1_2;
    const faces = [-40, -300].flatMap((z) => [
      face(`a${z}`, z, [0, root, -root], 90),
      face(`b${z}`, z, [0, root, root], 110),
      face(`c${z}`, z, [0, 1, 0], -110),
    ]);
    const hardware = { supports: { frame: 'lathe', origin: [0, 110, 0], supports: faces, want: { roll: 0 } } };
    const [move, ...others] = solve(sheet('spindle-axis', { bar: { diameter: 60, freeLength: 340 } }, readings, { hardware })).moves;
    expect(others).toEqual([]);
    const pose = move['pose'] as Record<string, number>;
    expect(move.quantity).toBe('slopeV');
    expect(pose['slopeV']).toBeCloseTo(move.amount, 4);
    expect(pose['slopeH']).toBe(0);
    expect(pose['roll']).toBe(0);
  });
});

describe('runout', () => {
  it('is the whole swing, and a vector when the bar is put back half round', () => {
    const at = (turn: number, extreme: string, reading: string, highAt?: number) => ({
      feature: 'taperFar',
      turn,
      extreme,
      value: reading,
      ...(highAt !== undefined && { highAt }),
    });
    const finding = solve(
      sheet('spindle-runout', { farDistance: 300 }, [
        at(0, 'high', '10 um', 0),
        at(0, 'low', '0 um'),
        at(180, 'high', '4 um', 180),
        at(180, 'low', '0 um'),
      ]),
    );
    expect(finding.quantities['taperFar'].value).toBeCloseTo(3, 9);
    expect(finding.quantities['taperFarBar'].value).toBeCloseTo(7, 9);
    expect(
      value(
        sheet('centre-runout', {}, [
          { feature: 'radial', extreme: 'high', value: '3 um' },
          { feature: 'radial', extreme: 'low', value: '-1 um' },
        ]),
        'radial',
      ),
    ).toBeCloseTo(4, 9);
  });

  it('spindle and bar add up to what was seen, both ways', () => {
    const number = fc.double({ min: -20, max: 20, noNaN: true });
    fc.assert(
      fc.property(number, number, number, number, (sx, sy, bx, by) => {
        const polar = (x: number, y: number) => ({ length: Math.hypot(x, y), highAt: (Math.atan2(y, x) * 180) / Math.PI });
        const { spindle, bar } = partRunout(polar(sx + bx, sy + by), polar(sx - bx, sy - by));
        expect(spindle.length).toBeCloseTo(Math.hypot(sx, sy), 6);
        expect(bar.length).toBeCloseTo(Math.hypot(bx, by), 6);
      }),
    );
  });

  it('a bar in vees tells bend from diameter', () => {
    const at = (place: number, extreme: string, reading: string) => ({ at: place, extreme, value: reading });
    const finding = solve(
      sheet('bar-qualification', {}, [
        at(0, 'high', '1 um'),
        at(0, 'low', '-1 um'),
        at(150, 'high', '8 um'),
        at(150, 'low', '-4 um'),
        at(300, 'high', '13 um'),
        at(300, 'low', '11 um'),
      ]),
    );
    expect(finding.quantities['bend'].value).toBeCloseTo(6, 9);
    // In vees of 90° at the ends a radius lifts the top 1 + √2 times; half-way it lifts the axis by half of √2 times.
    const end = 12 / (1 + Math.SQRT2);
    const middle = 2 - (Math.SQRT2 * end) / 2;
    expect(finding.quantities['diameterRange'].value).toBeCloseTo(2 * (end - middle), 6);
  });
});

describe('cuts and faces', () => {
  const cut = (readings: [number, number][], setup: Raw = {}) =>
    sheet(
      'chuck-test-cut',
      setup,
      readings.map(([at, diameter]) => ({ at, value: diameter })),
      { instrument: { kind: 'micrometer', graduation: '1 um' } },
    );

  it('smaller at the free end: the axis points toward the tool', () => {
    expect(
      value(
        cut([
          [0, 40],
          [100, 39.99],
        ]),
        'slopeH',
      ),
    ).toBeCloseTo(50, 6);
    expect(
      value(
        cut(
          [
            [0, 40],
            [100, 39.99],
          ],
          { tool: 'rear' },
        ),
        'slopeH',
      ),
    ).toBeCloseTo(-50, 6);
    expect(
      codes(
        cut([
          [0, 40],
          [100, 40],
        ]),
      ),
    ).toContain('twist-unknown');
  });

  it('bed twist is taken out when it is known', () => {
    const finding = solve(
      cut(
        [
          [0, 40],
          [100, 39.99],
        ],
        { twistPerMetre: 100, heightAboveWays: 200 },
      ),
    );
    expect(finding.quantities['slopeH'].value).toBeCloseTo(30, 6);
    expect(finding.quantities['slopeH'].terms['twist']).toBeCloseTo(-20, 6);
  });

  it('a faced disc past its centre shows the slide twice, a disc turned half round once', () => {
    const faced = sheet('cross-slide-squareness', {}, [
      { at: 0, value: '0 um' },
      { at: 100, value: '8 um' },
    ]);
    expect(value(faced, 'slope')).toBeCloseTo(40, 6);
    const turned = sheet('cross-slide-squareness', { method: 'reversed-disc' }, [
      { at: 0, value: '0 um', turn: 0 },
      { at: 100, value: '9 um', turn: 0 },
      { at: 0, value: '0 um', turn: 180 },
      { at: 100, value: '3 um', turn: 180 },
    ]);
    expect(value(turned, 'slope')).toBeCloseTo(60, 6);
    expect(value(turned, 'discSlope')).toBeCloseTo(30, 6);
  });

  it('a quill and a general traverse know their side and their reference', () => {
    const quill = (side: string) =>
      sheet('quill-parallelism', { side }, [
        { plane: 'h', at: 0, value: '0 um' },
        { plane: 'h', at: 100, value: '6 um' },
      ]);
    expect(value(quill('operator'), 'slopeH')).toBeCloseTo(60, 6);
    expect(value(quill('rear'), 'slopeH')).toBeCloseTo(-60, 6);
    const bar = sheet('quill-parallelism', { bar: { diameter: 14 }, freeLength: 200 }, [
      { plane: 'v', at: 10, value: '0 um' },
      { plane: 'v', at: 190, value: '0 um' },
    ]);
    expect(solve(bar).quantities['slopeV'].terms['sag']).toBeGreaterThan(10);
    const way = [0, 100, 200, 300].flatMap((at) => [
      { at, turn: 0, value: `${at * 0.03} um` },
      { at, turn: 180, value: `${at * 0.01} um` },
    ]);
    const found = solve(sheet('tailstock-way-parallelism', {}, way)).quantities;
    expect(found['slope'].value).toBeCloseTo(20, 6);
    expect(found['referenceSlope'].value).toBeCloseTo(10, 6);
    expect(found['range'].value).toBeCloseTo(0, 6);
  });

  it('the range of a motion is limited by its length', () => {
    const motion = sheet(
      'motion-straightness-x',
      {},
      [0, 300, 600].map((at) => ({ at, value: '0 um' })),
    );
    expect(solve(motion).quantities['range'].limit).toEqual([null, 20]);
  });
});

describe('squares', () => {
  const leg = (which: string, at: number, reading: number, more: Raw = {}) => ({ leg: which, at, value: `${reading} um`, ...more });
  const both = (p: number, q: number, more: Raw = {}) => [
    leg('reference', 0, 0, more),
    leg('reference', 200, p, more),
    leg('test', 0, 0, more),
    leg('test', 200, q, more),
  ];

  it('both drifts and the square’s own error add up', () => {
    const found = solve(sheet('axis-squareness', { squareError: 10 }, both(4, 6))).quantities['squareness'];
    expect(found.value).toBeCloseTo(20 + 30 + 10, 6);
    expect(found.terms).toEqual({ squareError: 10 });
    expect(codes(sheet('axis-squareness', {}, both(4, 6)))).toContain('square-unknown');
  });

  it('flipped over the square drops out; sides may be told with the readings', () => {
    const flipped = sheet('saddle-squareness', {}, [...both(4, 6), ...both(4, -2, { flip: true })]);
    expect(value(flipped, 'squareness')).toBeCloseTo(30, 6);
    expect(value(flipped, 'squareError')).toBeCloseTo(-20, 6);
    const restated = both(4, -6).map((reading) => ({ ...reading, stylus: reading['leg'] === 'test' ? '-A' : '+B' }));
    expect(value(sheet('axis-squareness', { squareError: 0 }, restated), 'squareness')).toBeCloseTo(50, 6);
    const object = both(4, 6).map((reading) => ({ ...reading, stylus: { reference: '-B', test: '-A' } }));
    expect(value(sheet('axis-squareness', { squareError: 0 }, object), 'squareness')).toBeCloseTo(-50, 6);
  });

  it('feeler leaves bound a gap, and their width is a doubt', () => {
    const gap = (at: number, go: string, noGo: string) => ({ axis: 'x', at, go, noGo });
    const found = solve(
      sheet('column-lean', { side: { x: 'right' } }, [gap(0, '0.05 mm', '0.06 mm'), gap(200, '0.10 mm', '0.11 mm')], {
        instrument: { kind: 'feeler', graduation: '0.01 mm' },
      }),
    ).quantities['leanX'];
    expect(found.value).toBeCloseTo(250, 6);
    expect(found.budget.map((line) => line.source)).toContain('leaves');
    expect(() => solve(sheet('column-lean', {}, [gap(0, '0.05 mm', 'thick')]))).toThrowMatching((error) =>
      error.faults.some((fault: { path: string }) => fault.path === 'readings[0].noGo'),
    );
  });

  it('with the head off a column leans back only', () => {
    const lean = (head: string) =>
      solve(
        sheet('column-lean', { head }, [
          { axis: 'y', at: 0, value: '0 um' },
          { axis: 'y', at: 300, value: '0 um' },
        ]),
      ).quantities['leanY'];
    expect(lean('off').limit).toEqual([-65, 0]);
    expect(lean('on').limit).toEqual([-65, 65]);
  });
});

describe('pins', () => {
  const over = (readings: Raw[], setup: Raw = {}) =>
    sheet('dovetail-over-pins', { pin: 8, angle: 60, ...setup }, readings, { instrument: { kind: 'micrometer', graduation: '1 um' } });

  it('range, taper, and the depth off a flank', () => {
    const finding = solve(
      over(
        [
          { at: 0, value: 100 },
          { at: 200, value: 100.02 },
        ],
        { target: 100 },
      ),
    );
    expect(finding.quantities['widthRange'].value).toBeCloseTo(20, 6);
    expect(finding.quantities['taper'].value).toBeCloseTo(100, 6);
    expect(finding.quantities['excess'].value).toBeCloseTo(20, 6);
    expect(finding.quantities['flankDepth'].value).toBeCloseTo(20 * Math.sin(Math.PI / 3), 6);
    expect(
      value(
        over(
          [
            { at: 0, value: 100 },
            { at: 200, value: 99.98 },
          ],
          { side: 'inside', target: 100 },
        ),
        'excess',
      ),
    ).toBeCloseTo(20, 6);
  });

  it('two pin sizes give the angle itself', () => {
    fc.assert(
      fc.property(fc.double({ min: 40, max: 75, noNaN: true }), fc.double({ min: 50, max: 150, noNaN: true }), (angle, width) => {
        const m = (d: number) => width + d * (1 + 1 / Math.tan((angle * Math.PI) / 360));
        expect(widthAtCorner(m(8), 8, angle, false)).toBeCloseTo(width, 9);
        const raw = over(
          [
            { at: 0, value: m(8) },
            { at: 100, value: m(8) },
            { at: 0, pin: 12, value: m(12) },
          ],
          { angle: 60 },
        );
        expect(value(raw, 'angle')).toBeCloseTo(angle, 4);
      }),
    );
  });
});
