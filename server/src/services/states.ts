import type { Transaction } from 'sequelize';
import * as z from 'zod';
import { CHECKS, fieldRegistry } from '@isometra/core';
import {
  KIT_SCHEMAS,
  machineCardSchema,
  partTold,
  partToldSchema,
  shopToldSchema,
  SCHOOLS,
  type Part,
  type PlanSettled,
  type RoundWrite,
  type SurveyWrite,
  type Kept,
  type KitKind,
  type StateHead,
  type StateThen,
} from '@isometra/contract';
import { changesOf, everyWords, minutesWords, shopDate } from '@isometra/work';
import { notFound } from '../api/errors.js';
import { EarlierStateRow } from '../db/shopModels.js';

type State = Readonly<Record<string, unknown>>;

/** A state of something, by its version. */
export interface Version {
  readonly version: number;
  readonly state: State;
}

const ONE: Readonly<Record<Kept, string>> = {
  machines: 'machine',
  kit: 'piece of kit',
  surfaces: 'face',
  parts: 'part',
  shops: 'shop',
  surveys: 'survey',
  rounds: 'round',
  plans: 'plan',
};

/**
 * Keep a state for good, in the transaction that brings it about. Of something that is older than this, the state before is kept first:
 * nobody knows any more who made it so.
 */
export async function keepState(
  { what, id, by, at = new Date() }: { readonly what: Kept; readonly id: string; readonly by: string; readonly at?: Date },
  now: Version,
  before: (Version & { readonly by?: string; readonly at?: Date }) | null,
  transaction: Transaction,
): Promise<void> {
  const known = before === null || (await EarlierStateRow.count({ where: { what, thingId: id }, transaction })) > 0;
  await EarlierStateRow.bulkCreate(
    [
      ...(known
        ? []
        : [{ what, thingId: id, version: before.version, state: { ...before.state }, by: before.by ?? null, at: before.at ?? null }]),
      { what, thingId: id, version: now.version, state: { ...now.state }, by, at },
    ],
    { transaction },
  );
}

/** The form that a state was typed in; undefined where its fields are called by their names. */
function formOf(what: Kept, state: State): z.ZodType | undefined {
  if (what === 'machines') return machineCardSchema;
  if (what === 'parts') return partToldSchema;
  if (what === 'shops') return shopToldSchema;
  if (what === 'surveys') return surveyToldSchema;
  if (what === 'rounds') return setUpForm(state);
  const data = what === 'kit' ? KIT_SCHEMAS[state['kind'] as Exclude<KitKind, 'instrument'>] : undefined;
  return data && z.object({ data });
}

/** The set-up of a check as one form: what was set up, planned, and how it stood, with the instrument. */
function setUpForm({ check }: State): z.ZodType | undefined {
  const definition = CHECKS.get(String(check));
  return definition && z.object({ ...definition.setup.shape, ...definition.plan.shape, ...definition.conditions.shape });
}

const surveyToldSchema = z.object({
  title: z.string().register(fieldRegistry, { label: 'Title' }),
  school: z.string().register(fieldRegistry, {
    label: 'After a move',
    choices: SCHOOLS.map(({ value, label }) => ({ value, label })),
  }),
  order: z.array(z.string()).register(fieldRegistry, { label: 'Checks in order' }),
  skipped: z.array(z.string()).register(fieldRegistry, { label: 'Left out' }),
  limits: z.string().register(fieldRegistry, { label: 'Limit sheet' }),
});

const titleOf = (check: string): string => CHECKS.get(check)?.title ?? check;

/** A state as its changes are told: what its form shows. */
function told(what: Kept, state: State): State {
  if (what === 'parts') return partTold(state as unknown as Part);
  if (what === 'rounds') {
    const { setup, plan, conditions, instrument } = state as Pick<RoundWrite, 'setup' | 'plan' | 'conditions' | 'instrument'>;
    return { ...setup, ...plan, ...conditions, ...(instrument && { instrument }) };
  }
  if (what === 'plans') return planTold(state as unknown as PlanSettled);
  if (what !== 'surveys') return state;
  const { order, skipped, limits, ...others } = state as Pick<SurveyWrite, 'order' | 'skipped' | 'limits'>;
  return {
    ...others,
    order: order.map(titleOf),
    skipped: skipped.map(({ check, why }) => `${titleOf(check)}: ${why}`),
    limits: `${limits.sheet}, version ${limits.version}`,
  };
}

/** An item that was added by hand, with whatever of it can be changed. */
function ownTold({ title, minutes, wait, people, every, notBefore, price, doneAt }: PlanSettled['own'][number]): string {
  const parts = [
    title,
    minutes && minutesWords(minutes[1]),
    wait !== null && `${wait} h by the clock`,
    people > 1 && `${people} people`,
    every !== undefined && everyWords(every),
    notBefore !== null && `not before ${shopDate(notBefore, null)}`,
    price !== undefined && `costs ${price}`,
  ];
  return `${parts.filter(Boolean).join(', ')}${doneAt === null ? '' : ' (done)'}`;
}

/** A plan as its changes are told: what was added, what was settled of an item, which stands first. */
const planTold = ({ own, changes, order }: PlanSettled): State => ({
  added: own.map(ownTold),
  settled: changes.map(({ key, why, left }) => `${key}${left ? ', left out' : ''}: ${why}`),
  ...(order.length && { order: order.join(', ') }),
});

const rowsOf = (what: Kept, thingId: string): Promise<EarlierStateRow[]> =>
  EarlierStateRow.findAll({ where: { what, thingId }, order: [['version', 'ASC']] });

/** Every state that something has had, newest first, each with what was changed to come to it. */
export async function listStates(what: Kept, id: string): Promise<StateHead[]> {
  const rows = await rowsOf(what, id);
  return rows
    .map(({ version, by, at, state }, i) => ({
      ...{ version, by, at: at?.toISOString() ?? null },
      changes: i === 0 ? [] : changesOf(formOf(what, state), told(what, rows[i - 1].state), told(what, state)),
    }))
    .reverse();
}

/** A state as it stood. */
export async function stateAt(what: Kept, thingId: string, version: number): Promise<StateThen> {
  const row = await EarlierStateRow.findOne({ where: { what, thingId, version } });
  if (!row) throw notFound(`state of this ${ONE[what]}`);
  return { version: row.version, by: row.by, at: row.at?.toISOString() ?? null, state: row.state };
}
