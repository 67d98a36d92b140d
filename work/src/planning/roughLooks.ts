import { CHECKS, parseQuantity, type CheckDefinition, type Fault, type QuantityInfo, type UnitSystem } from '@isometra/core';
import type { RoughLook } from '@isometra/contract';
import { doable } from '../judging/doable.js';
import type { Rung } from '../ladder/rungs.js';

/** A quantity of a check that a rough look can say something of: one that some move of this kind of machine puts right. */
export interface ToLookAt {
  readonly quantity: string;
  readonly info: QuantityInfo;
  /** The move that would be made: whichever way it is out, the first that the machine can do. */
  readonly kind: string;
}

/** What a rough look can say of a check, on a kind of machine. */
export function toLookAt(check: CheckDefinition, machineKind: string): readonly ToLookAt[] {
  return Object.entries(check.corrections).flatMap(([quantity, { plus = [], minus = [] }]) => {
    const info = check.quantities[quantity];
    const kind = [...plus, ...minus].find((one) => doable(one, machineKind, check.id));
    return info && kind !== undefined ? [{ quantity, info, kind }] : [];
  });
}

/** How a figure of a rough look may be typed. */
export function roughExample({ dimension }: Pick<QuantityInfo, 'dimension'>, system: UnitSystem = 'mm'): string {
  if (dimension === 'twist') return '0.1 mm/m per m';
  if (dimension === 'slope') return system === 'mm' ? '0.1 mm in 300 mm' : '4 thou in 12 in';
  return system === 'mm' ? '0.2 mm' : '8 thou';
}

/**
 * How far out a quantity is, as it is typed at a rough look: "0.2 mm", "8 thou", "0.1 mm in 300 mm". Whichever way it is out, it takes the same.
 *
 * @returns µm or µm/m, 0 or more; or what is wrong with it, with what would do.
 */
export function roughlyOut(typed: string, info: Pick<QuantityInfo, 'dimension'>): number | { readonly fault: string } {
  const parsed = parseQuantity(typed, info.dimension);
  if (!parsed.ok) return { fault: `${parsed.message}; ${roughExample(info)} would do` };
  if (parsed.bare) return { fault: `"${typed.trim()}" does not say its unit; ${roughExample(info)} would do` };
  return Math.abs(parsed.value);
}

/** What of rough looks cannot be used, each by its place in the list. */
export function lookFaults(looks: readonly RoughLook[]): readonly Fault[] {
  return looks.flatMap(({ check, quantity, out }, i): readonly Fault[] => {
    const info = CHECKS.get(check)?.quantities[quantity];
    if (!info) return [{ path: `looks[${i}].quantity`, message: 'is no quantity of a check', example: 'tilt, of head-tram' }];
    const told = out === null ? 0 : roughlyOut(out, info);
    return typeof told === 'number' ? [] : [{ path: `looks[${i}].out`, message: told.fault, example: roughExample(info) }];
  });
}

/** What rough looks said of a rung, as far as it has not been measured: what was measured since is what counts. */
export const looksAt = ({ check, state }: Pick<Rung, 'check' | 'state'>, looks: readonly RoughLook[]): readonly RoughLook[] =>
  state === 'none' ? looks.filter((look) => look.check === check.id) : [];

/** What a rough look says is out, and by how much, in its unit. */
export function outByLook(rung: Rung, looks: readonly RoughLook[], machineKind: string) {
  const said = looksAt(rung, looks);
  return toLookAt(rung.check, machineKind).flatMap(({ quantity, info, kind }) => {
    const look = said.find((one) => one.quantity === quantity);
    const by = look?.out ? roughlyOut(look.out, info) : 0;
    return look && typeof by === 'number' && by > 0 ? [{ quantity, kind, by, unit: info.unit, look }] : [];
  });
}
