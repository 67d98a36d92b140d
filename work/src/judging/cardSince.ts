import { CHECKS } from '@isometra/core';
import { machineCardSchema, type FieldChange, type MachineCardText } from '@isometra/contract';
import { changesOf } from '../notebook/changes.js';
import { hardwareOf } from '../sheets/sheet.js';

const differs = (one: unknown, other: unknown): boolean => JSON.stringify(one) !== JSON.stringify(other);

/** What the moves of a check are planned from: of its own kinds of move, and where its casting sits. */
function plannedFrom(check: string, card: MachineCardText): unknown {
  const own = Object.values(CHECKS.get(check)?.corrections ?? {}).flatMap(({ plus = [], minus = [] }) => [...plus, ...minus]);
  const { supports, ...moves } = hardwareOf(check, { card });
  return [supports, [...new Set(own)].map((kind) => moves[kind])];
}

/**
 * What of a machine card matters to a check and is not what it was: pitches, supports, stations, whatever its moves are planned from.
 * Told field by field in the words of the card. What else was changed on the card is left out.
 *
 * @param then the card as it stood. @param now the card of today.
 */
export function cardSince(check: string, then: MachineCardText, now: MachineCardText): FieldChange[] {
  const planned = plannedFrom(check, then);
  const fields = [...new Set([...Object.keys(then), ...Object.keys(now)])] as (keyof MachineCardText)[];
  const matter = fields.filter(
    (field) => differs(then[field], now[field]) && differs(plannedFrom(check, { ...then, [field]: now[field] }), planned),
  );
  const only = (card: MachineCardText) => Object.fromEntries(matter.map((field) => [field, card[field]]));
  return changesOf(machineCardSchema, only(then), only(now));
}
