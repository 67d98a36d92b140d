import { CATALOGUE } from './catalogue/index.js';
import type { CheckDefinition, MachineFamily } from './define.js';
import { workingOrder } from './order.js';

export const FAMILIES: readonly MachineFamily[] = ['lathe', 'turning-centre', 'mill'];

/** The checks of a kind of machine in working order: what is wrong with one is in all that follow. */
export const ladderOf = (family: MachineFamily): CheckDefinition[] =>
  workingOrder(CATALOGUE.filter((check) => check.machines.includes(family)));

/** Every check that can be solved, by id: those of a lathe in working order, then what other machines have beside. */
export const CHECKS: ReadonlyMap<string, CheckDefinition> = new Map(
  [...FAMILIES.flatMap(ladderOf), ...CATALOGUE].map((check) => [check.id, check]),
);
