import { pino } from 'pino';
import type { Sequelize } from 'sequelize';
import request from 'supertest';
import type { KitItem, Machine, MoveWrite, ReadingWrite, RoundWrite } from '@isometra/contract';
import { createApp } from '../app.js';
import { namesOf } from '../api/fence.js';
import { connect, migrate } from '../db/database.js';
import { PicturePartRow, PictureRow, SurfaceRow } from '../db/scrapingModels.js';
import {
  AttachmentRow,
  EarlierStateRow,
  KitRow,
  LimitSheetRow,
  LimitVersionRow,
  LogRow,
  MachineRow,
  PersonRow,
  SettingRow,
} from '../db/shopModels.js';
import { ImportRow, SeenRow, TokenRow } from '../db/archiveModels.js';
import { CalendarRow, NamedDateRow, PlanRow } from '../db/planModels.js';
import { PartRow, StripDownRow } from '../db/stripDownModels.js';
import { CheckRow, FindingRow, MoveRow, RoundRow, SurveyRow } from '../db/surveyModels.js';
import { News } from '../services/news.js';
import { Solver } from '../services/solver.js';

/** A real database, empty at first, with the application over it. */
export interface TestShop {
  readonly sequelize: Sequelize;
  readonly solver: Solver;
  readonly http: ReturnType<typeof request>;
  readonly clear: () => Promise<void>;
  readonly close: () => Promise<unknown>;
}

export async function openShop(webRoot?: string): Promise<TestShop> {
  const url = process.env['TEST_DATABASE_URL'];
  if (!url) throw new Error('TEST_DATABASE_URL is not set: run these through npm test');
  const sequelize = connect(url);
  await migrate(sequelize);
  const clear = async (): Promise<void> => {
    await LogRow.destroy({ where: {} });
    await SeenRow.destroy({ where: {} });
    await ImportRow.destroy({ where: {} });
    await TokenRow.destroy({ where: {} });
    await NamedDateRow.destroy({ where: {} });
    await PlanRow.destroy({ where: {} });
    await CalendarRow.destroy({ where: {} });
    await PartRow.destroy({ where: {} });
    await StripDownRow.destroy({ where: {} });
    await sequelize.query('DELETE FROM remarks ORDER BY sequence DESC', { type: 'DELETE' });
    await SettingRow.destroy({ where: {} });
    await PersonRow.destroy({ where: {} });
    await EarlierStateRow.destroy({ where: {} });
    await FindingRow.destroy({ where: {} });
    await MoveRow.destroy({ where: {} });
    await sequelize.query('DELETE FROM readings ORDER BY sequence DESC', { type: 'DELETE' });
    await RoundRow.destroy({ where: {} });
    await sequelize.query('DELETE FROM survey_notes ORDER BY sequence DESC', { type: 'DELETE' });
    await sequelize.query('DELETE FROM surface_entries ORDER BY sequence DESC', { type: 'DELETE' });
    await SurfaceRow.destroy({ where: {} });
    await PicturePartRow.destroy({ where: {} });
    await PictureRow.destroy({ where: {} });
    await CheckRow.destroy({ where: {} });
    await SurveyRow.destroy({ where: {} });
    await LimitVersionRow.destroy({ where: {} });
    await LimitSheetRow.destroy({ where: {} });
    await AttachmentRow.destroy({ where: {} });
    await KitRow.destroy({ where: {} });
    await MachineRow.destroy({ where: {} });
  };
  await clear();
  const solver = new Solver();
  const app = createApp({ sequelize, solver, news: new News(), logger: pino({ level: 'silent' }), names: namesOf('127.0.0.1'), webRoot });
  return {
    sequelize,
    solver,
    http: request(app),
    clear,
    close: () => Promise.all([sequelize.close(), solver.close()]),
  };
}

export const uuid = (): string => crypto.randomUUID();
const AT = '2026-03-01T08:00:00.000Z';

export const machine = (number = 'L-1'): Machine & { by: string } => ({
  id: uuid(),
  card: { number, kind: 'engine-lathe', centreDistance: '1000 mm', adjuster: { pitch: '1.5 mm' } },
  version: 1,
  by: 'AB',
});

export const indicator = (): KitItem & { by: string } => ({
  id: uuid(),
  kind: 'instrument',
  name: 'Lever dial',
  data: { kind: 'lever', graduation: '0.002 mm' },
  care: {},
  photos: [],
  version: 1,
  by: 'AB',
});

export const round = (machineId: string): RoundWrite => ({
  id: uuid(),
  machineId,
  check: 'tailstock-traverse',
  setup: { centreDistance: '420 mm' },
  plan: { stations: 2 },
  instrument: { kind: 'lever', graduation: '0.002 mm', sense: 1 },
  instrumentName: 'Lever dial',
  conditions: { quillLock: 'on' },
  purpose: null,
  by: 'AB',
  at: AT,
  version: 1,
});

export const reading = (at: number, value: string | null, more: Partial<ReadingWrite> = {}): ReadingWrite => ({
  id: uuid(),
  keys: { plane: 'h', at },
  value,
  set: 1,
  supersedes: null,
  why: null,
  by: 'AB',
  at: AT,
  ...more,
});

export const move = (roundId: string): MoveWrite => ({
  id: uuid(),
  roundId,
  kind: 'adjuster',
  quantity: 'offsetHorizontal',
  amount: 21,
  unit: 'um',
  direction: 'toward the operator',
  plan: { turns: 0.014 },
  ticks: [],
  shift: null,
  by: 'AB',
  begunAt: AT,
  doneAt: null,
  version: 1,
});
