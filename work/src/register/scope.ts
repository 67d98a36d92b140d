import { CHECKS } from '@isometra/core';
import type { RegisterUse, RoundHead } from '@isometra/contract';

/** A register as the machine card tells it: its axis, and what it is built on where that was said. */
export type RegisterBase = Pick<RegisterUse, 'name' | 'axis'> & {
  readonly basedOn?: string;
  /** What it shifts; left out where nobody said. */
  readonly scope?: 'station' | 'turret' | 'sub';
  /** Which station, where it shifts one. */
  readonly station?: string;
};

/** Whether a register shifts what a round was read on, as far as the machine card tells. */
function shifts(
  { scope, station }: Pick<RegisterBase, 'scope' | 'station'>,
  { check, conditions }: Pick<RoundHead, 'check' | 'conditions'>,
): boolean {
  if (scope === undefined) return true;
  if ((scope === 'sub') !== (CHECKS.get(check)?.carried === 'sub')) return false;
  const own = conditions['station'];
  return scope !== 'station' || !station || !own || station === String(own).trim();
}

/** Registers of the card that may be changed for what a round was read on: none of another station, none of another spindle. */
export const registersFor = <T extends Pick<RegisterBase, 'scope' | 'station'>>(
  registers: readonly T[],
  round: Pick<RoundHead, 'check' | 'conditions'>,
): T[] => registers.filter((register) => shifts(register, round));

/**
 * Whether a register that was changed re-opens what a round was read on: it shifts that by the card, or others are built on
 * it and the one that shifts that may be.
 *
 * @param used the register that was last changed for it, where one was.
 */
export function reopens(
  changed: Pick<RegisterUse, 'name' | 'axis' | 'kind'>,
  round: Pick<RoundHead, 'check' | 'conditions'>,
  used: string | undefined,
  registers: readonly RegisterBase[],
): boolean {
  const card = registers.find(({ name }) => name === changed.name);
  const own =
    used ?? registers.find((register) => register.scope !== undefined && register.scope !== 'turret' && shifts(register, round))?.name;
  // What is added to all of them shifts all of them; a reference those that are built on it.
  if (card?.scope && shifts(card, round) && changed.kind === 'added') return true;
  return (changed.kind === 'reference' || isBase(changed.name, registers)) && builtOn(own, changed, registers);
}

/** Whether other registers of the card are built on this one. */
export const isBase = (name: string, registers: readonly RegisterBase[]): boolean => registers.some(({ basedOn }) => basedOn === name);

/**
 * Whether a register is built on another, by the machine card. What the card leaves open is taken for built on it: a station
 * that is read again for nothing costs less than one that is off.
 */
export function builtOn(name: string | undefined, base: Pick<RegisterUse, 'name' | 'axis'>, registers: readonly RegisterBase[]): boolean {
  const seen = new Set<string>();
  for (let next = name; ;) {
    if (next === base.name) return true;
    const known = registers.find((entry) => entry.name === next);
    if (!known || seen.has(known.name)) return true;
    seen.add(known.name);
    if (!known.basedOn) return known.name === name && known.axis === base.axis;
    next = known.basedOn;
  }
}

/**
 * A plate that sits on another station than its own, in words; empty where the card does not say otherwise. What is read there
 * belongs to neither of the two.
 */
export function plateWords(stations: unknown, { station, plate }: Readonly<Record<string, unknown>>): string {
  const rows = (Array.isArray(stations) ? stations : []) as readonly { readonly station: string; readonly plate: string }[];
  const own = rows.find((row) => row.station === station)?.plate;
  if (typeof station !== 'string' || typeof plate !== 'string' || !own || own === plate) return '';
  const home = rows.find((row) => row.plate === plate)?.station;
  return `Station ${station} carries plate ${plate}; by the machine card its own is ${own}${home ? `, and plate ${plate} belongs on station ${home}` : ''}. Put each plate back on its own station before anything is moved or entered.`;
}
