import { startingSheet } from '@isometra/core';
import type { Machine, RoundHead, StoredSurvey, SurveyNote } from '@isometra/contract';
import { Diary, finding, move, quantity } from '../testing/heads.js';
import { FRAME } from '../pictures/lathe.js';
import { DeskDiary, face } from '../testing/surface.js';
import type { Block, Report } from './blocks.js';
import { factsOf } from './factsOf.js';
import { reportOf, type ReportFacts } from './report.js';
import * as z from 'zod';
import { CHECKS } from '@isometra/core';

const BAR = 'tailstock-traverse';
const FINGERPRINT = 'f'.repeat(64);
const machine: Machine = { id: 'm', card: { number: 'L-14', nickname: 'the long lathe', kind: 'engine-lathe' }, version: 1 };

const survey = (notes: readonly SurveyNote[] = [], more: Partial<StoredSurvey> = {}): StoredSurvey =>
  ({
    ...{
      id: 's',
      machineId: 'm',
      title: 'Autumn',
      startedAt: Diary.at(1),
      endedAt: null,
      school: 'cascade',
      order: [BAR, 'bed-twist'],
      version: 1,
    },
    ...{ skipped: [], limits: { sheet: 'general', version: 1 }, judge: startingSheet('general'), notes, ...more },
  }) as StoredSurvey;

function sideways(diary: Diary, value: number, more: Partial<RoundHead> = {}): RoundHead {
  const verdict = Math.abs(value) > 15 ? 'out' : 'in';
  const offsetHorizontal = quantity({
    value,
    expanded: 3,
    limit: [-15, 15],
    verdict,
    direction: value > 0 ? 'toward the operator' : 'away from the operator',
  });
  return { ...diary.round(BAR, null), instrumentName: 'Lever dial', finding: finding({ offsetHorizontal }), ...more };
}

function made(more: Partial<ReportFacts> = {}): Report {
  const diary = new Diary();
  return reportOf({
    ...{ machine, survey: survey(), heads: [sideways(diary, 62), sideways(diary, 4)], rounds: [], kit: [], shop: 'Tarnside Works' },
    ...{
      people: new Map([['HB', 'Hanna']]),
      zone: 'Europe/Lisbon',
      units: 'mm',
      fineness: 'coarse',
      now: Diary.at(9),
      fingerprint: FINGERPRINT,
    },
    ...more,
  });
}

const tables = ({ blocks }: Report) => blocks.filter((block): block is Extract<Block, { kind: 'table' }> => block.kind === 'table');
const table = (report: Report, name: string) => tables(report).find((one) => one.name === name);
const words = ({ blocks }: Report): string =>
  blocks.flatMap((block) => (block.kind === 'text' || block.kind === 'heading' ? [block.text] : [])).join('\n');

describe('a report', () => {
  it('tells each result as found and as left, with its uncertainty, its limit and its verdict', () => {
    const report = made();
    expect(table(report, 'Results as found and as left')?.rows).toEqual([
      {
        glyph: 'in',
        cells: [
          'Bar between centres, Tailstock sideways',
          '0.062 mm toward you ± 0.003 mm',
          '0.004 mm toward you ± 0.003 mm',
          'at most 0.015 mm either way',
          'in',
        ],
      },
    ]);
    expect(words(report)).toContain('1 result: 1 in.');
    expect(words(report)).toContain(FINGERPRINT);
  });

  it('is written in inches, or in both', () => {
    const cell = (units: 'inch' | 'both') => table(made({ units }), 'Results as found and as left')?.rows[0].cells[1] ?? '';
    expect(cell('inch')).toContain('thou');
    expect(cell('inch')).not.toContain('mm');
    expect(cell('both')).toMatch(/^0\.062 mm toward you ± 0\.003 mm \(2\.\d+ thou toward you ± 0\.\d+ thou\)$/);
  });

  it('says what is not measured, what was left out and what was left alone, each with its reason', () => {
    const diary = new Diary();
    const round = sideways(diary, 20);
    const note = {
      ...{ id: 'n', surveyId: 's', kind: 'acceptance', supersedes: null, by: 'HB', at: Diary.at(3) },
      content: { check: BAR, quantity: 'offsetHorizontal', roundId: round.id, why: 'only short work' },
    } as SurveyNote;
    const skipped = [{ check: 'spindle-axis', why: 'spindle is out', by: 'RM', at: Diary.at(2) }];
    const report = made({ heads: [round], survey: survey([note], { skipped, order: [BAR, 'bed-twist', 'spindle-axis'] }) });
    expect(table(report, 'Left alone on purpose')?.rows[0].cells.slice(0, 2)).toEqual([
      'Bar between centres, Tailstock sideways',
      'only short work',
    ]);
    expect(table(report, 'Left out of the survey')?.rows[0].cells.slice(0, 2)).toEqual(['Spindle axis', 'spindle is out']);
    expect(words(report)).toContain('Not measured\nBed twist.');
    expect(table(report, 'Results as found and as left')?.rows[0].glyph).toBe('left');
  });

  it('draws the machine as it stands by the last rounds, with what it says to who cannot see it; not on one page for a customer', () => {
    const drawnIn = (report: Report) => report.blocks.flatMap((block) => (block.kind === 'picture' ? [block.picture] : []));
    const [picture] = drawnIn(made());
    expect(picture.told).toContain('The lathe in plan and side view');
    // The last round: 4 µm toward the operator, who stands below in plan, at the factor that is printed on it.
    const factor = Number(/×(\d+)/.exec(picture.drawn.map((one) => ('text' in one ? one.text : '')).join(' '))?.[1]);
    const body = picture.drawn.find((one) => 'd' in one && one.d.startsWith('M820 -44'));
    expect(body && 'at' in body && body.at?.[5]).toBeCloseTo(116 + 4e-6 * FRAME.perMetre * factor, 6);
    expect(drawnIn(made({ short: true }))).toEqual([]);
    expect(drawnIn(made({ heads: [] }))).toEqual([]);
  });

  it('tells the faces that were scraped while it ran, with the metal that came off and how they bear', () => {
    const diary = new DeskDiary(face());
    diary.passes(2, '1', '2', '3', '4').passes(1, '4');
    const surfaces = [{ ...diary.surface, entries: diary.entries }];
    const rows = table(made({ surfaces, survey: survey([], { startedAt: '2026-01-01T00:00:00.000Z' }) }), 'Faces that were scraped')?.rows;
    expect(rows?.map(({ cells }) => cells)).toEqual([
      ['Saddle, flat way, for “Squareness of the saddle”', '2 Mar 2026, RM', '9 passes', 'about 0.024 mm to 0.036 mm', 'none was read'],
    ]);
    const before = survey([], { startedAt: '2026-01-01T00:00:00.000Z', endedAt: '2026-02-01T00:00:00.000Z' });
    expect(table(made({ surfaces, survey: before }), 'Faces that were scraped')).toBeUndefined();
  });

  it('tells what was moved and what that did; none of it on one page for a customer', () => {
    const diary = new Diary();
    const moved = move({ quantity: 'offsetHorizontal', amount: -58, kind: 'adjuster', begunAt: Diary.at(1, 9), doneAt: Diary.at(1, 10) });
    const heads = [sideways(diary, 62, { moves: [moved] }), sideways(diary, 4)];
    expect(table(made({ heads }), 'Moves that were made')?.rows[0].cells.slice(1)).toEqual([
      'Bar between centres: Turn the adjusting screws',
      '0.058 mm away from you',
      'It went 0.058 mm away from you, as planned.',
    ]);
    expect(table(made({ heads, short: true }), 'Moves that were made')).toBeUndefined();
    expect(tables(made({ heads, short: true })).map(({ name }) => name)).toEqual(['Results as found and as left']);
  });

  it('two moves of one check before it is read again are named as such; a move of another check by its name', () => {
    const diary = new Diary();
    const one = move({ id: 'a', quantity: 'offsetHorizontal', amount: -58, begunAt: Diary.at(1, 9), doneAt: Diary.at(1, 10) });
    const other = move({ id: 'b', quantity: 'offsetHorizontal', amount: -5, begunAt: Diary.at(1, 11), doneAt: Diary.at(1, 12) });
    const told = (heads: readonly RoundHead[]) => table(made({ heads }), 'Moves that were made')?.rows.map(({ cells }) => cells[3]) ?? [];
    const [first] = told([sideways(diary, 62, { moves: [one, other] }), sideways(diary, 4)]);
    expect(first).toBe('Another move of this check was made before it was read again, so nothing can be said of either by itself.');
    const bed = { ...diary.round('bed-twist', null), at: Diary.at(0, 8), moves: [other], finding: finding({}) };
    const [apart] = told([sideways(new Diary(), 62, { moves: [one] }), bed, sideways(diary, 4)]);
    expect(apart).toContain('The other move was for: Bed twist.');
  });

  it('names the instruments with their certificates, and tells only the checks that were chosen', () => {
    const kit = [
      {
        id: 'k',
        kind: 'instrument',
        name: 'Lever dial',
        data: {},
        care: { certificate: 'C-1042', due: '2027-03-31' },
        photos: [],
        version: 1,
      },
    ] as never;
    expect(table(made({ kit }), 'Instruments')?.rows[0].cells).toEqual(['Lever dial', 'C-1042', '31 Mar 2027']);
    expect(table(made({ checks: ['bed-twist'] }), 'Results as found and as left')).toBeUndefined();
  });

  it('tells a round whole: set-up in its units, readings, and apart those that were replaced with the reason', () => {
    const diary = new Diary();
    const head = sideways(diary, 4);
    const reading = (id: string, value: string, more = {}) => ({
      ...{
        id,
        roundId: head.id,
        sequence: 1,
        keys: { plane: 'h', at: 21 },
        value,
        set: 1,
        supersedes: null,
        why: null,
        by: 'HB',
        at: Diary.at(1),
      },
      ...more,
    });
    const round = {
      ...{
        id: head.id,
        machineId: 'm',
        surveyId: 's',
        check: BAR,
        number: 1,
        setup: { centreDistance: '420 mm' },
        plan: {},
        conditions: {},
      },
      ...{ instrument: null, instrumentName: 'Lever dial', purpose: null, by: 'HB', at: Diary.at(1), version: 1, moves: [] },
      readings: [reading('a', '1 div'), reading('b', '2 div', { supersedes: 'a', why: 'misread' })],
    } as never;
    const told = { round, finding: null };
    const report = made({ heads: [head], rounds: [told, told] });
    const row = ['1', 'Operator’s side, near the headstock, 21 mm', '2 div'];
    expect(table(report, 'Readings')?.rows.map(({ cells }) => cells.slice(0, 3))).toEqual([row]);
    // The place has its number on the drawing; a round that is read in the same way is not drawn again.
    const drawings = report.blocks.flatMap((block) => (block.kind === 'method' ? [block.scene] : []));
    expect(drawings.length).toBe(1);
    expect(JSON.stringify(drawings[0])).toContain('"text":"(1)"');
    // Where nobody planned to read it is said as well.
    const own = { ...(round as { readings: object[] }), readings: [reading('a', '1 div', { keys: { plane: 'v', at: 37 } })] } as never;
    const elsewhere = made({ units: 'inch', heads: [head], rounds: [{ round: own, finding: null }] });
    expect(table(elsewhere, 'Readings')?.rows[0].cells[1]).toBe('top, 1.46 in');
    expect(table(report, 'Readings that were replaced')?.rows.map(({ cells, struck }) => [cells[1], cells[2], struck])).toEqual([
      ['1 div', 'misread', true],
    ]);
    const facts = report.blocks.filter((block) => block.kind === 'facts').flatMap(({ rows }) => rows);
    expect(facts).toContain(jasmine.arrayContaining([jasmine.stringMatching(/entre/), '420 mm']));
  });
});

describe('what was filled in of a form', () => {
  it('has the unit of its field where the figure was typed without one', () => {
    const { setup } = CHECKS.get(BAR) ?? { setup: z.object({}) };
    const told = (centreDistance: unknown) => factsOf(setup, { centreDistance })[0]?.[1];
    expect(told(420)).toBe('420 mm');
    expect(told('420')).toBe('420 mm');
    expect(told('16.5 in')).toBe('16.5 in');
  });

  it('has a length in the unit of the paper too where it was typed in the other one', () => {
    const { setup } = CHECKS.get(BAR) ?? { setup: z.object({}) };
    const told = (centreDistance: unknown, system: 'mm' | 'inch') => factsOf(setup, { centreDistance }, system)[0]?.[1];
    expect(told('620 mm', 'inch')).toBe('620 mm (24.41 in)');
    expect(told(620, 'inch')).toBe('620 mm (24.41 in)');
    expect(told('16.5 in', 'inch')).toBe('16.5 in');
    expect(told('16 1/2"', 'inch')).toBe('16 1/2"');
    expect(told('2 feet', 'mm')).toBe('2 feet (609.6 mm)');
    expect(told('16 1/2 in', 'mm')).toBe('16 1/2 in (419.1 mm)');
    expect(told('620 mm', 'mm')).toBe('620 mm');
  });

  it('is called by its own name where that says whose it is', () => {
    const { setup } = CHECKS.get(BAR) ?? { setup: z.object({}) };
    expect(factsOf(setup, { bar: { diameter: '32 mm', material: 'steel' } })).toEqual([
      ['Bar diameter', '32 mm'],
      ['Bar: Material', 'steel'],
    ]);
  });
});
