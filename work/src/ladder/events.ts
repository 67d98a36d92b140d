import type { OtherWork } from '../notebook/doneMoves.js';
import { defaultPlan, type Campaign } from './campaign.js';

/** The check whose move levelling is. */
export const levelOf = (kind: string): string => (defaultPlan(kind).order.includes('bed-twist') ? 'bed-twist' : 'table-level');

/** What happened to a machine, as its surveys tell it: levelling is a move of its own check, all else upsets the whole machine. */
export const eventsOf = (kind: string, surveys: readonly Pick<Campaign, 'events'>[]): NonNullable<OtherWork['events']> =>
  surveys.flatMap(({ events }) => events.map(({ what, at }) => ({ what, at, ...(what === 'levelled' && { check: levelOf(kind) }) })));
