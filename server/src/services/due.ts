import type { Sequelize } from 'sequelize';
import type { Due } from '@isometra/contract';
import { byDay, checksDue, kitDue, ownDue, partsDue, shopDay } from '@isometra/work';
import { PlanRow } from '../db/planModels.js';
import { listHeads } from './heads.js';
import { listKit } from './kit.js';
import { listMachines } from './machines.js';
import { shopZone } from './shop.js';
import type { Solver } from './solver.js';
import { listStripDowns } from './stripDowns.js';

/** Everything with a day of its own across the shop: what was missed stands first. */
export async function shopDue(sequelize: Sequelize, solver: Solver, now = new Date().toISOString()): Promise<Due> {
  const [all, zone, kit, plans] = await Promise.all([listMachines(), shopZone(), listKit(), PlanRow.findAll()]);
  const own = new Map(plans.map(({ machineId, settled }) => [machineId, settled.own]));
  const items = await Promise.all(
    all
      .filter(({ archived }) => !archived)
      .map(async (machine) => {
        const [heads, stripDowns] = await Promise.all([listHeads(sequelize, solver, machine.id), listStripDowns(machine.id)]);
        return [...checksDue(machine, heads, zone), ...partsDue(machine, stripDowns), ...ownDue(machine, own.get(machine.id) ?? [])];
      }),
  );
  return { today: shopDay(now, zone), items: byDay([...items.flat(), ...kitDue(kit)]) };
}
