import { Op, type Transaction } from 'sequelize';
import { LogRow } from '../db/shopModels.js';
import type { Content } from './files.js';

/** Entries of the logbook have no names: one that says the same of the same moment is the same. */
const sayingOf = (entry: Content): string =>
  JSON.stringify(['machineId', 'at', 'by', 'what', 'text', 'part', 'thing', 'thingId', 'was'].map((key) => entry[key] ?? null));

/** Entries of a file of the logbook that are not in the logbook here. Each one here stands for one of theirs, never for two. */
export class LogMerge {
  private readonly used = new Set<number>();

  /** @param last the newest entry from before anything came in. */
  constructor(private readonly last: number) {}

  async missing(machineId: string | null, entries: readonly Content[], transaction: Transaction): Promise<readonly Content[]> {
    if (entries.length === 0) return [];
    const times = entries.map(({ at }) => Date.parse(String(at)));
    const rows = await LogRow.findAll({
      where: {
        machineId,
        id: { [Op.lte]: this.last },
        at: { [Op.between]: [new Date(Math.min(...times)), new Date(Math.max(...times))] },
      },
      transaction,
    });
    const free = new Map<string, number[]>();
    for (const row of rows) {
      const id = Number(row.id);
      if (this.used.has(id)) continue;
      const saying = sayingOf({ ...row.get({ plain: true }), at: row.at.toISOString() });
      free.set(saying, [...(free.get(saying) ?? []), id]);
    }
    return entries.filter((entry) => {
      const known = free.get(sayingOf({ ...entry, machineId }))?.shift();
      if (known !== undefined) this.used.add(known);
      return known === undefined;
    });
  }
}
