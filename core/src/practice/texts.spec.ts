import * as z from 'zod';
import { CHECKS } from '../checks/registry.js';
import { bareSchema, fieldInfo } from '../input/fields.js';
import { SAMPLE_SETUPS } from '../testing/sampleSetups.js';
import { FILE_SIZES, sentence, sizesIn } from '../units/said.js';
import { FaultError } from '../input/faults.js';
import type { Finding } from '../judging/finding.js';
import { METRIC_WORDS, MOVES } from '../moves/registry.js';
import { stepsOf } from '../testing/jobs.js';
import { solve } from '../solve/solve.js';
import { practiceRound } from './models.js';
import { textFaults } from './textFaults.js';

const inch = {
  ...METRIC_WORDS,
  size: (um: number) => `${(um / 25.4).toFixed(1)} thou`,
  length: (mm: number) => `${(mm / 25.4).toFixed(2)} in`,
};

const IN_INCHES = sizesIn({ system: 'inch', fineness: 'coarse' });

/** A plan with each of its choices made and each of its ticks set, one at a time; and as it is. */
function plansOf(schema: z.ZodObject): Readonly<Record<string, unknown>>[] {
  const shape = schema.shape as Readonly<Record<string, z.ZodType>>;
  const tried = Object.entries(shape).flatMap(([key, part]): Record<string, unknown>[] => {
    const bare = bareSchema(part);
    if (bare instanceof z.ZodEnum) return bare.options.map((value) => ({ [key]: value }));
    if (bare.def.type === 'boolean') return [{ [key]: true }];
    return fieldInfo(part)?.dimension === 'length' ? [{ [key]: '40 mm' }] : [];
  });
  return [{}, ...tried].flatMap((plan) => {
    const read = schema.safeParse(plan);
    return read.success ? [read.data] : [];
  });
}

/** What a sheet is answered: its notes and moves, or why it was refused, as notes. */
function answerOf(sheet: object, sizes = FILE_SIZES): Pick<Finding, 'notes' | 'moves'> {
  try {
    return solve(sheet, { sizes });
  } catch (error) {
    if (!(error instanceof FaultError)) throw error;
    const notes = error.faults.map(({ path, message }) => ({ code: path, severity: 'serious' as const, text: message }));
    return { notes, moves: [] };
  }
}

describe('every sentence', () => {
  it('of a check that is the same for every machine reads as a person writes', () => {
    const wrong = [...CHECKS.values()].flatMap((check) =>
      [check.title, check.question, check.choose, check.counting ?? '', ...check.cautions, ...check.cannotSee, ...check.advice].flatMap(
        (text) => textFaults(text).map((fault) => `${check.id}: ${fault}`),
      ),
    );
    expect(wrong).toEqual([]);
  });

  it('that names a place to read, for every way to plan a check', () => {
    let heard = 0;
    const wrong = new Set<string>();
    for (const check of CHECKS.values()) {
      const setup = check.setup.safeParse(SAMPLE_SETUPS[check.id] ?? {});
      if (!setup.success) continue;
      for (const plan of plansOf(check.plan))
        for (const slot of check.slots(setup.data, plan))
          for (const size of [FILE_SIZES, IN_INCHES]) {
            heard += 1;
            for (const text of [sentence(slot.label, size), slot.ask ?? '']) {
              for (const fault of textFaults(text)) wrong.add(`${check.id}: ${fault}`);
              if (size === IN_INCHES && / mm\b/.test(text)) wrong.add(`${check.id}, in inches: ${text}`);
            }
          }
    }
    expect(heard).toBeGreaterThan(1000);
    expect([...wrong]).toEqual([]);
  });

  it('of a result, with the figures of invented rounds', () => {
    const wrong = new Set<string>();
    let heard = 0;
    for (const id of CHECKS.keys())
      for (let seed = 1; seed <= 12; seed++) {
        const { sheet } = practiceRound(id, seed, { repeat: 0.4 });
        const readings = sheet['readings'] as Record<string, unknown>[];
        // As it is; half of it; with one reading that is out of all proportion.
        const wild = readings.map((reading, i) => (i === 1 ? { ...reading, value: 10 * Number(reading['value']) + 40 } : reading));
        for (const taken of [readings, readings.slice(0, Math.ceil(readings.length / 2)), wild]) {
          const { notes, moves } = answerOf({ ...sheet, readings: taken });
          const told = answerOf({ ...sheet, readings: taken }, IN_INCHES);
          if (told.moves.length || told.notes.some(({ code }) => !code.includes('.')))
            for (const { text, code } of told.notes) if (/ (mm|µm)\b/.test(text)) wrong.add(`${id} ${code}, in inches: ${text}`);
          for (const { text, code } of notes) {
            heard += 1;
            for (const fault of textFaults(text)) wrong.add(`${id} ${code}: ${fault}`);
          }
          for (const { kind, quantity, direction } of moves)
            for (const words of [METRIC_WORDS, inch])
              for (const { text, caution = '' } of stepsOf(kind, { size: '0.021 mm', direction, part: CHECKS.get(id)?.part, words }))
                for (const fault of textFaults(`${text} ${caution}`)) wrong.add(`${id} ${quantity} by ${kind}: ${fault}`);
        }
      }
    expect(heard).toBeGreaterThan(500);
    expect([...wrong].sort()).toEqual([]);
  });

  it('of a job card, planned and not planned', () => {
    const wrong = [...MOVES.values()].flatMap((move) => {
      const plan = move.plan && move.example ? move.plan(move.input.parse(move.example) as Record<string, unknown>) : {};
      return [METRIC_WORDS, inch].flatMap((words) =>
        [plan, {}].flatMap((known) =>
          stepsOf(move.kind, { size: '0.021 mm', direction: 'toward you', plan: known, words }).flatMap(({ text, caution = '' }) =>
            [text, caution].flatMap((sentence) => textFaults(sentence).map((fault) => `${move.kind}: ${fault}`)),
          ),
        ),
      );
    });
    expect(wrong).toEqual([]);
  });

  it('is held against faults that are really found', () => {
    for (const text of [
      'It is  high.',
      'It is high .',
      'Bring it to to you',
      '2 mm mm',
      '53.974999999 mm',
      'bar.freeLength',
      'passDepthUm',
      '12/31/2026',
      'undefined',
    ])
      expect(textFaults(text).length).withContext(text).toBeGreaterThan(0);
    for (const text of ['0.021 mm in 300 mm, 0.8 thou.', 'One round in 18 Nov 2026: 1/2 turn.', 'Go in in one go'.replace('in in', 'in')])
      expect(textFaults(text)).toEqual([]);
  });
});
