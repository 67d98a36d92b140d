import { solve } from './solve.js';

interface Raw {
  [key: string]: unknown;
}
const traverse = (readings: Raw[], more: Raw = {}, instrument: Raw = {}) => ({
  format: 'isometra-sheet/1',
  check: 'tailstock-traverse',
  instrument: { kind: 'lever', graduation: '2 um', sense: 1, accuracy: '1 um', ...instrument },
  setup: { centreDistance: 400, bar: { diameter: 25 } },
  readings,
  ...more,
});
const side = (at: number, value: unknown, more: Raw = {}) => ({ plane: 'h', at, value, ...more });
const codes = (sheet: unknown) => solve(sheet).notes.map((note) => note.code);

describe('a finding', () => {
  it('without readings says that too few were taken', () => expect(codes(traverse([]))).toEqual(['too-few-readings']));

  it('warns that the direction is assumed until the part has been nudged', () => {
    expect(codes(traverse([side(0, 0), side(400, 3)], {}, { sense: undefined }))).toContain('direction-assumed');
    expect(codes(traverse([side(0, 0), side(400, 3)]))).not.toContain('direction-assumed');
  });

  it('warns of a needle near the end of its travel', () => {
    // The bezel can be turned: how far from zero a needle stands says nothing.
    expect(codes(traverse([side(0, 0), side(400, 48)], {}, { range: 100 }))).not.toContain('pegged');
    expect(codes(traverse([side(0, -46), side(400, 46)], {}, { range: 100 }))).toContain('pegged');
    expect(codes(traverse([side(0, 0), side(400, 40)], {}, { range: 100 }))).not.toContain('pegged');
  });

  it('reports closure above a readable step and does not trust it above two divisions', () => {
    const closing = (last: number) => traverse([side(0, 0), side(400, 30), side(0, last)]);
    expect(codes(closing(0.5))).not.toContain('closure');
    expect(solve(closing(1)).notes.find((note) => note.code === 'closure')?.severity).toBe('warning');
    const bad = solve(closing(2.5));
    expect(bad.notes.find((note) => note.code === 'closure')?.severity).toBe('serious');
    expect(bad.quantities['offsetHorizontal'].verdict).toBe('unsure');
    expect(bad.moves).toEqual([]);
  });

  it('takes the mean of set-ups and their spread as a term', () => {
    const finding = solve(traverse([side(0, 0), side(400, 10), side(0, 0, { set: 2 }), side(400, 14, { set: 2 })]));
    expect(finding.quantities['offsetHorizontal'].value).toBeCloseTo(24, 9);
    expect(finding.quantities['offsetHorizontal'].budget[0].source).toBe('setting-up');
  });

  it('says so when a close call comes from one set-up', () => {
    // Too close to call, but a second set-up that says the same would settle it: in as well as out.
    expect(codes(traverse([side(0, 0), side(400, 5.7)]))).toContain('one-set-up');
    expect(codes(traverse([side(0, 0), side(400, 9.2)]))).toContain('one-set-up');
    expect(codes(traverse([side(0, 0), side(400, 7.5)]))).not.toContain('one-set-up');
    expect(codes(traverse([side(0, 0), side(400, 60)]))).not.toContain('one-set-up');
    expect(codes(traverse([side(0, 0), side(400, 0)]))).not.toContain('one-set-up');
  });

  it('the move goes to the aim, the needle to its target', () => {
    const [move] = solve(traverse([side(0, 0), side(400, -10)], { hardware: { adjuster: { pitch: 2, gain: 0.5 } } }, { sense: -1 })).moves;
    expect(move).toEqual(jasmine.objectContaining({ kind: 'adjuster', quantity: 'offsetHorizontal', direction: 'away from the operator' }));
    expect(move.amount).toBeCloseTo(-20, 9);
    expect(move['turns']).toBeCloseTo(-0.02, 9);
    expect(move.indicator).toEqual(jasmine.objectContaining({ now: 0, unit: 'div' }));
    expect(move.indicator?.target).toBeCloseTo(10, 9);
  });

  it('leaves alone what is in, and what is smaller than its doubt', () => {
    const inside = solve(traverse([side(0, 0), side(400, 1)]));
    expect(inside.moves).toEqual([]);
    expect(inside.notes.map((note) => note.code)).toContain('not-worth-moving');
    const small = solve(traverse([side(0, 0), side(400, 0.5)], { limits: { offsetHorizontal: [-0.5, 0.5] } }));
    expect(small.quantities['offsetHorizontal'].verdict).toBe('unsure');
    expect(small.moves).toEqual([]);
    expect(small.notes.find((note) => note.code === 'not-worth-moving')?.text).toContain('smaller than the doubt');
  });

  it('brings what is in nearer, or what suits other places too, when the user says by how much', () => {
    const hardware = { adjuster: { pitch: 1.5 } };
    const sheet = traverse([side(0, 0), side(400, -5), side(0, 0)], { hardware });
    const asked = solve(sheet);
    expect([asked.quantities['offsetHorizontal'].verdict, asked.moves.length]).toEqual(['in', 0]);
    const [half] = solve(sheet, { wanted: { offsetHorizontal: { amount: 2.5 } } }).moves;
    expect(half).toEqual(jasmine.objectContaining({ kind: 'adjuster', amount: 2.5, direction: 'toward the operator' }));
    // By pencil: 2.5 µm on a screw of 1.5 mm; the needle goes by 1.25 of its divisions.
    expect(half['turns']).toBeCloseTo(2.5 / 1500, 9);
    expect(Math.abs((half.indicator?.target ?? 0) - (half.indicator?.now ?? 0))).toBeCloseTo(1.25, 9);
    expect(solve(sheet, { wanted: { offsetHorizontal: { amount: -4 } } }).moves[0].direction).toBe('away from the operator');
    expect(solve(sheet, { wanted: { offsetHorizontal: { amount: 0 } } }).moves).toEqual([]);
    // A round that is not trusted plans nothing, whoever asks.
    const open = traverse([side(0, 0), side(400, -5), side(0, 9)], { hardware });
    expect(solve(open, { wanted: { offsetHorizontal: { amount: 2.5 } } }).moves).toEqual([]);
  });

  it('takes metal for what is in only where it is told to', () => {
    const high = (at: number, value: number) => ({ plane: 'v', at, value });
    const sheet = traverse([high(0, 0), high(400, 6), high(0, 0)]);
    expect(solve(sheet).quantities['offsetVertical'].verdict).toBe('in');
    const kinds = (metal?: boolean) =>
      solve(sheet, { wanted: { offsetVertical: { amount: -8, ...(metal && { metal }) } } }).moves.map(({ kind }) => kind);
    expect(kinds()).not.toContain('scrape');
    expect(kinds(true).length).toBeGreaterThan(0);
  });

  it('says with numbers what would help a coarse instrument', () => {
    const finding = solve(traverse([side(0, 0), side(400, 1)], {}, { graduation: '0.02 mm', accuracy: '10 um' }));
    const note = finding.notes.find((entry) => entry.code === 'coarse-instrument');
    expect(note?.text).toMatch(/four times would bring it to about ±\d/);
    expect(note?.text).toMatch(/half the division to about ±\d/);
  });

  it('without an instrument has no doubt to state', () => {
    const sheet = { ...traverse([side(0, '0 um'), side(400, '30 um')]), instrument: undefined };
    expect(solve(JSON.parse(JSON.stringify(sheet))).quantities['offsetHorizontal'].expanded).toBeNull();
  });

  it('own limits and aims replace those of the catalogue', () => {
    const { limit, aim } = solve(
      traverse([side(0, 0), side(400, 1)], { limits: { offsetHorizontal: ['-1 thou', null] }, aims: { offsetHorizontal: 4 } }),
    ).quantities['offsetHorizontal'];
    expect(limit).toEqual([-25.4, null]);
    expect(aim).toBe(4);
  });
});

describe('what a method says of itself', () => {
  it('a bar turned where it stands is no second opinion', () => {
    const sheet = traverse([side(0, 0), side(400, 1)], { setup: { centreDistance: 400, bar: { diameter: 25, finish: 'turned-here' } } });
    expect(codes(sheet)).toEqual(jasmine.arrayContaining(['self-made-evidence', 'no-vertical']));
  });

  it('a live centre joins the budget', () => {
    const sheet = traverse([side(0, 0), side(400, 1)], { setup: { centreDistance: 400, centre: 'live' } });
    expect(solve(sheet).quantities['offsetHorizontal'].budget.map((line) => line.source)).toContain('live-centre');
  });

  it('ends swapped: the mean of both ways is the machine, half the difference the taper', () => {
    const both = [side(20, 0), side(380, 24), side(20, 0, { swapped: true }), side(380, 12, { swapped: true })];
    const finding = solve(traverse(both));
    expect(finding.quantities['offsetHorizontal'].value).toBeCloseTo((36 * 400) / 360, 9);
    expect(finding.quantities['taper'].value).toBeCloseTo((1000 * 12) / 360, 9);
    const carried = solve(traverse([side(20, 0), side(380, 9, { swapped: true })]));
    expect(carried.quantities['offsetHorizontal'].value).toBeCloseTo((18 * 400) / 360, 9);
  });

  it('measured diameters are taken out of a side reading', () => {
    const bar = {
      diameter: 25,
      diameters: [
        { at: 0, diameter: 25 },
        { at: 400, diameter: 25.02 },
      ],
    };
    const finding = solve(traverse([side(0, 0), side(400, 10)], { setup: { centreDistance: 400, bar } }));
    expect(finding.quantities['offsetHorizontal'].value).toBeCloseTo(10, 9);
    expect(finding.quantities['offsetHorizontal'].terms['diameter']).toBeCloseTo(-10, 9);
  });

  it('carriage and spindle part by the axis', () => {
    const sheet = traverse([side(0, 0), side(400, 10)], { setup: { centreDistance: 400, distance: 500, axisSlopeH: 20 } });
    const { quantities } = solve(sheet);
    expect(quantities['spindleOffsetHorizontal'].value).toBeCloseTo(20 - 10, 9);
  });

  const sweep = (readings: [number, number][], setup: Raw = {}, instrument: Raw = {}) => ({
    format: 'isometra-sheet/1',
    check: 'tailstock-sweep',
    instrument: { kind: 'plunger', graduation: '2 um', sense: 1, ...instrument },
    setup,
    readings: readings.map(([angle, value]) => ({ angle, value })),
  });

  it('a sweep of front and rear alone gives the side only', () => {
    const finding = solve(
      sweep([
        [0, 10],
        [180, 0],
      ]),
    );
    expect(Object.keys(finding.quantities)).toEqual(['offsetHorizontal']);
    expect(finding.quantities['offsetHorizontal'].value).toBeCloseTo(10, 9);
    expect(finding.notes.map((note) => note.code)).toEqual(jasmine.arrayContaining(['no-vertical', 'axis-unknown']));
  });

  it('a sweep that does not close is out of round', () => {
    const notes = (bottom: number) =>
      codes(
        sweep([
          [0, 10],
          [90, 5],
          [180, 0],
          [270, bottom],
        ]),
      );
    expect(notes(5)).not.toContain('out-of-round');
    expect(notes(9)).toContain('out-of-round');
  });

  it('a cone reads short', () => {
    const flat = solve(
      sweep([
        [0, 10],
        [180, 0],
      ]),
    ).quantities['offsetHorizontal'].value;
    const cone = solve(
      sweep(
        [
          [0, 10],
          [180, 0],
        ],
        { coneAngle: 30 },
      ),
    ).quantities['offsetHorizontal'].value;
    expect(cone / flat).toBeCloseTo(1 / Math.cos(Math.PI / 6), 9);
  });

  it('a bore swept at two depths gives its slope', () => {
    const sheet = sweep(
      [
        [0, 10],
        [90, 0],
        [180, 0],
        [270, 0],
      ],
      { feature: 'bore' },
    );
    const deep = sheet.readings.map((reading) => ({ ...reading, at: 40, value: reading.angle === 0 ? 14 : reading.value }));
    const finding = solve({ ...sheet, readings: [...sheet.readings.map((reading) => ({ ...reading, at: 0 })), ...deep] });
    expect(finding.quantities['offsetHorizontal'].value).toBeCloseTo(-10, 9);
    expect(finding.quantities['slopeH'].value).toBeCloseTo(-4 / 0.04, 6);
  });

  it('during a sweep both sides come half-way', () => {
    const [move] = solve(
      sweep([
        [0, 30],
        [90, 15],
        [180, 0],
        [270, 15],
      ]),
    ).moves;
    expect(move.indicator).toEqual(jasmine.objectContaining({ now: 30, target: 15, where: "operator's side" }));
  });

  const cut = (readings: Raw[], setup: Raw = {}) => ({
    format: 'isometra-sheet/1',
    check: 'tailstock-test-cut',
    instrument: { kind: 'micrometer', graduation: '1 um' },
    setup: { centreDistance: 400, bar: { diameter: 60 }, ...setup },
    readings,
  });

  it('a warm pad is brought to the temperature of the first', () => {
    const finding = solve(
      cut([
        { at: 0, value: 60, temperature: 20 },
        { at: 400, value: 60.0069, temperature: 30 },
      ]),
    );
    expect(finding.quantities['offsetHorizontal'].value).toBeCloseTo(0, 1);
    expect(finding.quantities['offsetHorizontal'].terms['temperature']).toBeCloseTo(3.45, 1);
  });

  it('a temperature is needed of every pad or of none', () => {
    expect(() =>
      solve(
        cut([
          { at: 0, value: 60, temperature: 20 },
          { at: 400, value: 60 },
        ]),
      ),
    ).toThrowMatching((error) => error.faults[0].path === 'readings[1].temperature');
  });

  it('a re-set tool adds the difference of its settings to the diameters', () => {
    const finding = solve(
      cut([
        { at: 0, value: 60, toolSetting: 0 },
        { at: 400, value: 59.9, toolSetting: 0.1 },
      ]),
    );
    expect(finding.quantities['offsetHorizontal'].value).toBeCloseTo(0, 9);
  });

  it('knows twist, slender bars and thin work', () => {
    expect(
      codes(
        cut([
          { at: 0, value: 60 },
          { at: 400, value: 60 },
        ]),
      ),
    ).toEqual(jasmine.arrayContaining(['twist-unknown', 'no-vertical']));
    const slender = codes(
      cut(
        [
          { at: 0, value: 8 },
          { at: 400, value: 8 },
        ],
        { bar: { diameter: 8 }, twistPerMetre: 4 },
      ),
    );
    expect(slender).toEqual(jasmine.arrayContaining(['slender-bar', 'height-could-matter']));
    expect(slender).not.toContain('twist-unknown');
  });
});

describe('a correction that is an angle', () => {
  const dial = { kind: 'lever', graduation: '0.002 mm', sense: 1 };
  const quill = (rise: number) => ({
    format: 'isometra-sheet/1',
    check: 'quill-parallelism',
    instrument: dial,
    setup: {},
    readings: [
      { plane: 'v', at: 0, value: 0 },
      { plane: 'v', at: 200, value: `${rise} um` },
    ],
    hardware: { 'base-shims': { length: '200 mm', overhang: '60 mm' } },
  });

  it('tilts a tailstock by shims under one end, and says what the centre does', () => {
    const drooping = solve(quill(-24)).moves[0] as unknown as Record<string, number>;
    // −120 µm/m wanted at 50: 170 µm/m over a base of 200 mm, under the front.
    expect([drooping['front'], drooping['rear']].map((size) => size.toFixed(6))).toEqual(['34.000000', '0.000000']);
    expect(drooping['lift']).toBeCloseTo(34 + 170 * 0.06, 9);
    const rising = solve(quill(40)).moves[0] as unknown as Record<string, number>;
    expect([rising['front'], rising['rear']].map((size) => size.toFixed(6))).toEqual(['0.000000', '30.000000']);
  });

  it('is told as an angle while nobody says over what distance, with a note, and as a thickness once they do', () => {
    const column = (shims: object) =>
      solve({
        format: 'isometra-sheet/1',
        check: 'column-lean',
        instrument: dial,
        setup: { side: 'right', head: 'on' },
        readings: [
          { axis: 'x', at: 0, value: 0 },
          { axis: 'x', at: 250, value: '-50 um' },
        ],
        hardware: { 'shim-leaves': { stock: [{ thickness: 20, count: 8 }], ...shims } },
      });
    const without = column({});
    expect(without.moves[0].amount).toBeCloseTo(-200, 6);
    expect(without.moves[0]).not.toEqual(jasmine.objectContaining({ leaves: jasmine.anything() as unknown as number[] }));
    expect(without.notes.find((note) => note.code === 'distance-missing')?.text).toContain('hardware.shim-leaves.over');
    const given = column({ over: '300 mm' });
    expect(given.moves[0]).toEqual(jasmine.objectContaining({ thickness: 60, leaves: [20, 20, 20] } as object));
    expect(given.notes.some((note) => note.code === 'distance-missing')).toBeFalse();
  });

  it('of a head is travel of its screws at their own distance from the pivot; without that no turns are given', () => {
    const head = (screw: Record<string, unknown>) =>
      solve({
        format: 'isometra-sheet/1',
        check: 'head-tram',
        instrument: dial,
        setup: { radius: 100, pivotDistance: 180 },
        readings: [
          { angle: 0, value: '20 um' },
          { angle: 90, value: '-30 um' },
          { angle: 180, value: '-20 um' },
          { angle: 270, value: '30 um' },
        ],
        hardware: { adjuster: { pitch: 2, ...screw } },
      });
    const turns = (quantity: string) => head({ over: '250 mm' }).moves.find((move) => move.quantity === quantity)?.['turns'];
    // 300 µm/m at 250 mm is 75 µm of travel, of a pitch of 2 mm: not the radius of the sweep.
    expect(turns('nod')).toBeCloseTo(-0.0375, 9);
    expect(turns('tilt')).toBeCloseTo(-0.025, 9);
    const plain = head({});
    expect(plain.moves.map((move) => move['turns'])).toEqual([undefined, undefined]);
    expect(plain.notes.map(({ code }) => code)).toContain('distance-missing');
    expect(plain.moves.find((move) => move.quantity === 'nod')?.indicator?.target).toBeCloseTo((30 - 0.3 * 280) / 2, 9);
  });
});
