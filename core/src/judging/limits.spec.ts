import fc from 'fast-check';
import { CHECKS } from '../checks/registry.js';
import { effectOnWork } from './work.js';
import { FINDING_FORMAT, type Finding } from './finding.js';
import { JOB_KINDS } from './jobLimits.js';
import { LIMITS_FORMAT, judgedBy, limitable, lineName, readLimitSheet, type LimitSheet } from './limitSheet.js';
import { STARTING_SHEETS, startingSheet } from './starting.js';
import { startingZone, zoneOver } from './zones.js';

const check = (id: string) => {
  const found = CHECKS.get(id);
  if (!found) throw new Error(id);
  return found;
};
const read = (...lines: unknown[]) => readLimitSheet({ format: LIMITS_FORMAT, name: 'Ours', lines });
const only = (...lines: unknown[]): LimitSheet => {
  const { sheet, faults } = read(...lines);
  if (!sheet) throw new Error(JSON.stringify(faults));
  return sheet;
};
const line = { check: 'tailstock-traverse', quantity: 'offsetHorizontal', zone: [-15, 15] };

describe('zones stated for a length', () => {
  it('are in proportion to it, and never narrower than their least', () => {
    expect(zoneOver([null, 15], { length: 1000, least: 5 }, 2000)).toEqual([null, 30]);
    expect(zoneOver([null, 15], { length: 1000, least: 5 }, 100)).toEqual([null, 5]);
    expect(zoneOver([-10, 20], { length: 300 }, 600)).toEqual([-20, 40]);
    expect(zoneOver([0, 20], { length: 300 }, undefined)).toEqual([0, 20]);
  });

  it('grow with the length, and keep zero where it is', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 5000, noNaN: true }), fc.double({ min: 1.01, max: 10, noNaN: true }), (length, more) => {
        const [low, high] = zoneOver([0, 20], { length: 300, least: 1 }, length);
        const [, wider] = zoneOver([0, 20], { length: 300, least: 1 }, length * more);
        return low === 0 && (high as number) <= (wider as number);
      }),
    );
  });

  it('the catalogue states straightness over a metre and runout over 300 mm', () => {
    expect(startingZone(check('way-straightness'), 'straightness', { base: 200 }, [0, 200, 400, 600, 800])).toEqual([null, 15]);
    expect(startingZone(check('motion-straightness-x'), 'range', {}, [0, 150])).toEqual([null, 5]);
    expect(startingZone(check('spindle-runout'), 'taperFar', { farDistance: 600 }, [])).toEqual([null, 40]);
    expect(startingZone(check('spindle-runout'), 'taperFar', {}, [])).toEqual([null, 20]);
  });

  it('a kind of set-up has a zone of its own', () => {
    expect(startingZone(check('column-lean'), 'leanY', { head: 'off' }, [])).toEqual([-65, 0]);
    expect(startingZone(check('column-lean'), 'leanY', { head: 'on' }, [])).toEqual([-65, 65]);
    expect(startingZone(check('spindle-play'), 'liftFront', { bearing: 'rolling' }, [])).toEqual([null, 10]);
  });
});

describe('starting sheets', () => {
  for (const { id, factor } of STARTING_SHEETS) {
    it(`${id} is ${factor} of the catalogue, line for line, and can be read back`, () => {
      const sheet = startingSheet(id);
      expect(readLimitSheet(JSON.parse(JSON.stringify(sheet)))).toEqual({ sheet, faults: [] });
      for (const entry of CHECKS.values()) {
        for (const [name, info] of limitable(entry)) {
          const found = sheet.lines.find((other) => other.check === entry.id && other.quantity === name && !other.when);
          expect(found?.zone)
            .withContext(`${entry.id} ${name}`)
            .toEqual(info.limit?.map((bound) => bound && bound * factor) as never);
        }
      }
    });
  }

  it('the general one judges as the catalogue does', () => {
    const sheet = startingSheet('general');
    const way = check('way-straightness');
    expect(judgedBy(sheet, way, { base: 200 }, [0, 1000]).limits['straightness']).toEqual(
      startingZone(way, 'straightness', { base: 200 }, [0, 1000]) as never,
    );
    expect(judgedBy(sheet, check('column-lean'), { head: 'off' }, []).limits['leanY']).toEqual([-65, 0]);
    expect(judgedBy(sheet, check('tailstock-traverse'), {}, []).aims['offsetVertical']).toBe(5);
  });
});

describe('a limit sheet of one’s own', () => {
  it('takes texts with units, one-sided zones and an aim with its reason', () => {
    const sheet = only(
      { ...line, zone: ['-0.5 thou', '0.5 thou'] },
      { check: 'tailstock-traverse', quantity: 'offsetVertical', zone: [0, 30], aim: '0.02 mm', reason: 'wears down' },
      { check: 'bed-twist', quantity: 'twistPerMetre', zone: [-40, null] },
      { check: 'way-straightness', quantity: 'straightness', zone: [null, 8], over: { length: '500 mm' } },
    );
    const judged = judgedBy(sheet, check('tailstock-traverse'), {}, []);
    expect(judged.limits['offsetHorizontal'][1]).toBeCloseTo(12.7, 9);
    expect(judged.aims).toEqual({ offsetVertical: 20 });
    expect(judgedBy(sheet, check('way-straightness'), { base: 100 }, [0, 900]).limits['straightness']).toEqual([null, 16]);
    expect(judgedBy(sheet, check('bed-twist'), {}, []).limits['twistPerMetre']).toEqual([-40, null]);
  });

  it('leaves what it does not name to the catalogue', () => {
    expect(judgedBy(only(line), check('spindle-axis'), {}, [])).toEqual({ limits: {}, aims: {} });
  });

  it('names lines as people find them', () => {
    expect(lineName({ check: 'column-lean', quantity: 'leanY', when: 'head-off' })).toBe('column-lean/leanY/head-off');
  });

  const faulty: [string, unknown, string, RegExp][] = [
    ['a check that is none', { ...line, check: 'tailstok-traverse' }, 'lines[0].check', /not a check/],
    ['a check that is missing', { quantity: 'x' }, 'lines[0].check', /is missing/],
    ['a quantity that is none', { ...line, quantity: 'offsetHorizontl' }, 'lines[0].quantity', /not limited/],
    ['a quantity that is missing', { check: 'seat' }, 'lines[0].quantity', /seat limits rock, clampShift/],
    ['a unit that does not fit', { ...line, zone: [-15, '20 um/m'] }, 'lines[0].zone[1]', /unit/],
    ['a zone the wrong way round', { ...line, zone: [15, -15] }, 'lines[0].zone', /below/],
    ['a zone without bounds', { ...line, zone: [null, null] }, 'lines[0].zone', /neither/],
    ['a zone that is none', { ...line, zone: 15 }, 'lines[0].zone', /two values/],
    ['a size without its most', { check: 'centre-runout', quantity: 'radial', zone: [0, null] }, 'lines[0].zone[1]', /most it may be/],
    ['an aim outside', { ...line, aim: 30, reason: 'so' }, 'lines[0].aim', /must lie in its zone/],
    ['an aim without a reason', { ...line, aim: 5 }, 'lines[0].reason', /needs a reason/],
    ['a length where none counts', { ...line, over: { length: 300 } }, 'lines[0].over', /does not grow/],
    [
      'a length of nothing',
      { check: 'way-straightness', quantity: 'straightness', zone: [null, 9], over: { length: 0 } },
      'lines[0].over.length',
      /more than 0/,
    ],
    ['a set-up that is none', { ...line, when: 'sunday' }, 'lines[0].when', /one zone only/],
    ['a misspelt key', { ...line, zonee: 1 }, 'lines[0].zonee', /did you mean "zone"/],
    ['a line that is none', 'x', 'lines[0]', /must be a line/],
  ];
  for (const [what, bad, path, message] of faulty) {
    it(`refuses ${what}, and says which`, () => {
      const { sheet, faults } = read(bad);
      expect(sheet).toBeUndefined();
      const fault = faults.find((entry) => entry.path === path);
      expect(fault).withContext(JSON.stringify(faults)).toBeDefined();
      expect(fault?.message).toMatch(message);
      expect(fault?.example).not.toBe('');
    });
  }

  it('tells every fault of a sheet at once', () => {
    const { faults } = readLimitSheet({ format: 'isometra-limits/9', name: '', lines: [line, line, { ...line, check: 'x' }], more: 1 });
    expect(faults.map((fault) => fault.path).sort()).toEqual(['format', 'lines[1]', 'lines[2].check', 'more', 'name']);
    expect(readLimitSheet(7).faults.length).toBe(1);
    expect(readLimitSheet({ format: LIMITS_FORMAT, name: 'x' }).faults.map((fault) => fault.path)).toEqual(['lines']);
  });
});

describe('limits from the job', () => {
  const job = (id: string) => {
    const kind = JOB_KINDS.find((entry) => entry.id === id);
    if (!kind) throw new Error(id);
    return (raw: unknown) => kind.limits(kind.fields.parse(raw));
  };
  const size = fc.double({ min: 1, max: 200, noNaN: true });
  const length = fc.double({ min: 20, max: 2000, noNaN: true });

  it('every limit is one that a sheet takes, with its sum', () => {
    const jobs: [string, unknown][] = [
      ['taper', { taper: '0.01 mm', length: '250 mm' }],
      ['reamed-hole', { oversize: '0.02 mm' }],
      ['hole-pattern', { error: '0.02 mm', length: '300 mm' }],
      ['face-milling', { flatness: '0.01 mm', diameter: '100 mm' }],
      ['facing', { hollow: '0.01 mm', diameter: '200 mm' }],
    ];
    expect(jobs.map(([id]) => id)).toEqual(JOB_KINDS.map((kind) => kind.id));
    for (const [id, raw] of jobs) {
      const limits = job(id)(raw);
      const { faults } = read(...limits.map(({ sum: _sum, ...entry }) => entry));
      expect(faults).withContext(id).toEqual([]);
      for (const { sum } of limits) expect(sum).toMatch(/= [\d.]+ µm/);
    }
  });

  const finding = (h: number, v: number): Finding => {
    const quantity = (value: number) => ({
      value,
      unit: 'um',
      expanded: 0,
      direction: null,
      limit: null,
      aim: 0,
      verdict: null,
      terms: {},
      budget: [],
    });
    return {
      format: FINDING_FORMAT,
      check: 'tailstock-traverse',
      quantities: { offsetHorizontal: quantity(h), offsetVertical: quantity(v) },
      moves: [],
      notes: [],
    };
  };

  it('a tailstock at its limit tapers the stated work by just what was allowed', () => {
    fc.assert(
      fc.property(size, length, fc.double({ min: 1, max: 4, noNaN: true }), (taper, part, ratio) => {
        const centres = part * ratio;
        const limit = job('taper')({ taper, length: part, centres }).find(({ check }) => check === 'tailstock-traverse');
        const high = limit?.zone[1] as number;
        const [effect] = effectOnWork(finding(high, 0), { kind: 'turning', length: part, centreDistance: centres });
        return Math.abs(effect.effect - taper) < 1e-6 * taper;
      }),
    );
  });

  it('a reamer at both limits cuts over size by just what was allowed', () => {
    fc.assert(
      fc.property(size, (oversize) => {
        const [h, v] = job('reamed-hole')({ oversize })
          .filter(({ check }) => check === 'tailstock-sweep')
          .map((entry) => entry.zone[1] as number);
        return Math.abs(2 * Math.hypot(h, v) - oversize) < 1e-9 * oversize;
      }),
    );
  });

  it('a head at its limit leaves steps of just what was allowed, and a table its pattern', () => {
    expect(job('face-milling')({ flatness: 10, diameter: 100 })[0].zone).toEqual([-100, 100]);
    expect(job('hole-pattern')({ error: 20, length: 400 })[0].zone).toEqual([-50, 50]);
    expect(job('facing')({ hollow: 10, diameter: 200 })[0].zone).toEqual([0, 100]);
  });
});
