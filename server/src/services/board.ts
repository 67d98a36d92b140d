import type { Sequelize } from 'sequelize';
import type { Board } from '@isometra/contract';
import { campaignOf, daysUntilDue, eventsOf, ladderFacts, plateOf, readCard, ruling, scrapedOf, shopDay, slantOf } from '@isometra/work';
import { listHeads } from './heads.js';
import { listKit } from './kit.js';
import { lastLog } from './log.js';
import { listMachines } from './machines.js';
import { shopZone } from './shop.js';
import type { Solver } from './solver.js';
import { listSurfaces } from './surfaces.js';
import { listSurveys } from './surveys.js';

/** The shop board: every machine as its ladder says, and the kit that is overdue. */
export async function shopBoard(sequelize: Sequelize, solver: Solver, now = new Date()): Promise<Board> {
  const at = now.toISOString();
  const zone = await shopZone();
  const machines = (await listMachines()).filter(({ archived }) => !archived);
  const plates = await Promise.all(
    machines.map(async ({ id, card }) => {
      const [rounds, surveys, last, surfaces] = await Promise.all([
        listHeads(sequelize, solver, id),
        listSurveys(id),
        lastLog(id),
        listSurfaces(id),
      ]);
      const campaigns = surveys.map(campaignOf);
      const slant = slantOf((card as Readonly<Record<string, unknown>>)['slide']);
      return {
        machineId: id,
        last,
        ...plateOf({
          kind: String(card.kind),
          rounds: ruling(rounds),
          surveys: campaigns,
          surfaces,
          facts: {
            now: at,
            zone,
            scraped: scrapedOf(surfaces),
            events: eventsOf(String(card.kind), campaigns),
            ...ladderFacts(readCard(card)),
          },
          ...(slant !== undefined && { slant }),
        }),
      };
    }),
  );
  const today = shopDay(at, zone);
  const kit = (await listKit()).flatMap(({ name, care, archived }) => {
    const days = archived ? undefined : daysUntilDue(care, today);
    return days !== undefined && days < 0 ? [{ name, days: -days }] : [];
  });
  return { plates, kit };
}
