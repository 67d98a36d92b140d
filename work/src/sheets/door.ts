import {
  CHECKS,
  FaultError,
  HAND_STEPS,
  SHEET_FORMAT,
  faultsOf,
  fieldInfo,
  fieldPath,
  instrumentSchemaFor,
  nearest,
  parseQuantity,
  readSheet,
  type CheckDefinition,
  type Fault,
  type MachineFamily,
} from '@isometra/core';
import { wantsSubject, type NoteKind, type ReadingWrite, type RoundWrite, type SurveyNote } from '@isometra/contract';
import type * as z from 'zod';

/** What is wrong with the parts of a round that its check reads: nothing may be stored that the core cannot read. */
export function roundFaults(round: Pick<RoundWrite, 'check' | 'setup' | 'plan' | 'instrument' | 'conditions'>): Fault[] {
  const check = CHECKS.get(round.check);
  if (!check) return [unknownCheck(round.check)];
  return [
    ...sheetFaults(round, []),
    ...partFaults(check.plan, round.plan, 'plan'),
    ...partFaults(check.conditions, knownOf(check.conditions, round.conditions), 'conditions'),
  ];
}

function unknownCheck(id: string): Fault {
  const known = [...CHECKS.keys()];
  return { path: 'check', message: `"${id}" is not a check; there are ${known.join(', ')}`, example: nearest(id, known) ?? known[0] };
}

/** The conditions that a check knows; others may be noted beside them. */
const knownOf = ({ shape }: z.ZodObject, conditions: RoundWrite['conditions']) =>
  Object.fromEntries(Object.entries(conditions).filter(([name]) => name in shape));

function partFaults(schema: z.ZodObject, raw: unknown, path: string): Fault[] {
  const parsed = schema.safeParse(raw);
  return parsed.success ? [] : faultsOf(parsed.error, [path], Object.keys(schema.shape));
}

function sheetFaults(
  { check, setup, instrument }: Pick<RoundWrite, 'check' | 'setup' | 'instrument'>,
  readings: readonly unknown[],
): Fault[] {
  try {
    readSheet({ format: SHEET_FORMAT, check, setup, ...(instrument && { instrument }), readings });
    return [];
  } catch (error) {
    if (error instanceof FaultError) return [...error.faults];
    throw error;
  }
}

/**
 * What is wrong with one reading, by itself: its keys, its value on the round's instrument. Faults that only show
 * beside other readings (a low above its high, a gap in the steps) are told with the finding.
 *
 * @returns faults with paths that begin at the reading: `value`, `keys.at`.
 */
export function readingFaults(
  round: Pick<RoundWrite, 'check' | 'setup' | 'instrument'>,
  reading: Pick<ReadingWrite, 'keys' | 'value' | 'set' | 'supersedes'>,
): Fault[] {
  const check = CHECKS.get(round.check);
  if (!check) return [unknownCheck(round.check)];
  const row = { ...reading.keys, ...(reading.value !== null && { value: reading.value }), set: reading.set };
  return sheetFaults(round, [row])
    .filter(
      ({ path }) =>
        path.startsWith('readings[0]') && !(path === 'readings[0].value' && reading.supersedes !== null && reading.value === null),
    )
    .map((fault) => ({ ...fault, path: ownPath(fault.path.slice('readings[0]'.length + 1)) }));
}

/** Where a person finds it in a stored reading: its value and set stand beside its keys. */
const ownPath = (path: string): string => (path === '' ? 'keys' : path === 'value' || path === 'set' ? path : `keys.${path}`);

/** What a person calls a key of a reading: "Along the bed". */
export function keyLabel(check: CheckDefinition, key: string): string {
  const schema = check.reading.shape[key] as z.ZodType | undefined;
  return (schema && fieldInfo(schema)?.label) ?? key;
}

/** Where the fields of a part of a round are described. */
function partOf(check: CheckDefinition, part: string, instrument: RoundWrite['instrument']): z.ZodObject | undefined {
  if (part === 'instrument') return instrumentSchemaFor(instrument?.['kind']);
  return new Map(Object.entries({ setup: check.setup, plan: check.plan, conditions: check.conditions, keys: check.reading })).get(part);
}

/** What a fault is of, as a person calls it: "Distance between centres", "Reading 3"; the round itself where it is of no field. */
function subjectOf(check: CheckDefinition, path: string, instrument: RoundWrite['instrument']): string {
  const [part, ...keys] = path.split('.');
  const reading = /^readings\[(\d+)\]$/.exec(part);
  if (reading) {
    const own = keys.filter((key) => key !== 'value');
    return [`Reading ${Number(reading[1]) + 1}`, ...own.map((key) => keyLabel(check, key).toLowerCase())].join(', ');
  }
  if (part === 'value') return 'The reading';
  if (part === 'readings') return 'The readings';
  const schema = keys.length ? partOf(check, part, instrument) : undefined;
  return schema ? fieldPath(schema, keys) : 'This round';
}

/** What would do, in the words that a choice is shown in. */
function exampleOf(check: CheckDefinition, { path, example }: Fault, instrument: RoundWrite['instrument']): string {
  const [part, key] = path.split('.');
  const field = partOf(check, part, instrument)?.shape[key ?? ''] as z.ZodType | undefined;
  return (field && fieldInfo(field)?.choices?.find(({ value }) => value === example)?.label) ?? example;
}

/** A fault of a round or of one of its readings, in a sentence that names the field by its label and says what would do. */
export function faultWords(checkId: string, fault: Fault, instrument: RoundWrite['instrument'] = null): string {
  const check = CHECKS.get(checkId);
  const subject = check ? subjectOf(check, fault.path, instrument) : 'This round';
  const example = check ? exampleOf(check, fault, instrument) : fault.example;
  // A sentence of its own has its subject.
  const said = wantsSubject(fault.message) ? `${subject} ${fault.message}` : `${subject}: ${fault.message}`;
  return example ? `${said}. Example: ${example}` : `${said}.`;
}

const checkFault = (check: string, quantity: string): Fault | undefined => {
  const known = CHECKS.get(check);
  if (!known) return { ...unknownCheck(check), path: 'content.check' };
  const names = Object.keys(known.quantities);
  return names.includes(quantity)
    ? undefined
    : { path: 'content.quantity', message: `"${quantity}" is not told by that check; it tells ${names.join(', ')}`, example: names[0] };
};

/** A note that another refers to must be of the right kind, and in the same survey. */
function referenceFault(path: string, id: string, kind: NoteKind, written: readonly SurveyNote[]): Fault | undefined {
  const known = written.some((note) => note.id === id && note.kind === kind);
  return known ? undefined : { path, message: `no such note in this survey`, example: `the id of a note of the kind ${kind}` };
}

/**
 * What is wrong with a note in its survey: a step that this kind of machine does not have, a quantity its check does
 * not tell, a note it refers to that is not there.
 *
 * @param written every note of the survey, also those that no longer count.
 */
export function noteFaults(note: SurveyNote, written: readonly SurveyNote[], family: MachineFamily): Fault[] {
  const faults: (Fault | undefined)[] = [];
  if (note.supersedes !== null && !written.some(({ id }) => id === note.supersedes))
    faults.push({ path: 'supersedes', message: 'no such note in this survey', example: 'the id of a note of this survey' });
  if (note.kind === 'withdrawn' && note.supersedes === null)
    faults.push({
      path: 'supersedes',
      message: 'is missing: name the note that is taken back',
      example: 'the id of a note of this survey',
    });
  const steps: string[] = HAND_STEPS[family].map(({ id }) => id);
  switch (note.kind) {
    case 'by-hand':
      if (!steps.includes(note.content.step))
        faults.push({ path: 'content.step', message: `is not done on this machine; there is ${steps.join(', ')}`, example: steps[0] });
      if (note.content.sizes && !HAND_STEPS[family].some(({ id, sizes }) => id === note.content.step && sizes))
        faults.push({ path: 'content.sizes', message: 'belong to a proof cut, and this step is none', example: 'leave it out' });
      break;
    case 'rough-look':
      if (family === 'mill')
        faults.push({ path: 'kind', message: 'is for the centres of a lathe, and this machine has none', example: 'by-hand' });
      break;
    case 'acceptance':
    case 'stand-in':
      faults.push(checkFault(note.content.check, note.content.quantity));
      break;
    case 'planned-done':
      faults.push(referenceFault('content.planned', note.content.planned, 'planned', written));
      break;
    case 'tie': {
      faults.push(referenceFault('content.standIn', note.content.standIn, 'stand-in', written));
      const parsed = parseQuantity(note.content.reading, 'deviation');
      if (!parsed.ok) faults.push({ path: 'content.reading', message: parsed.message, example: '12 um' });
    }
  }
  return faults.filter((fault) => fault !== undefined);
}
