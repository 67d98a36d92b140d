import type { Model, ModelStatic, Order } from 'sequelize';
import type { ArchiveKind } from '@isometra/contract/archive';
import { SHOP_ID, type Kept } from '@isometra/contract';
import { NamedDateRow, PlanRow } from '../db/planModels.js';
import { RemarkRow } from '../db/remarkModel.js';
import { PictureRow, SurfaceEntryRow, SurfaceRow } from '../db/scrapingModels.js';
import { AttachmentRow, KitRow, LimitSheetRow, LimitVersionRow, MachineRow, PersonRow, SettingRow } from '../db/shopModels.js';
import { PartRow, StripDownRow } from '../db/stripDownModels.js';
import { CheckRow, MoveRow, NoteRow, ReadingRow, RoundRow, SurveyRow } from '../db/surveyModels.js';

type AnyModel = ModelStatic<Model>;

/** Rows that belong to a thing and stand in its file: they are only ever added to. */
export interface List {
  /** Under which key they stand. */
  readonly field: string;
  readonly model: AnyModel;
  /** The column that names the thing. */
  readonly foreign: string;
  readonly columns: readonly string[];
  readonly order: Order;
  /** What tells one row from another. */
  readonly key: string;
}

/** How a kind of thing is kept: its table, what of it stands in its file, and what belongs to it. */
export interface Keeping {
  readonly model: AnyModel;
  readonly key: string;
  readonly columns: readonly string[];
  readonly lists: readonly List[];
  /** Under which name its earlier states are kept, and of which id. */
  readonly kept?: { readonly what: Kept; readonly idOf: (key: string) => string | null };
  /** Whether its states are told apart at all: what is written once and never changed has none. */
  readonly changes: boolean;
}

const own = (what: Kept): NonNullable<Keeping['kept']> => ({ what, idOf: (key) => key });
const signed = ['by', 'at'] as const;
const inSequence: Order = [['sequence', 'ASC']];

/** Everything that has a file of its own in an archive but the logbook, in the order in which one leans on another. */
export const KEEPING: Readonly<Record<Exclude<ArchiveKind, 'log'>, Keeping>> = {
  shop: {
    model: SettingRow,
    key: 'name',
    columns: ['name', 'value', ...signed],
    lists: [],
    kept: { what: 'shops', idOf: (name) => (name === 'card' ? SHOP_ID : null) },
    changes: true,
  },
  people: { model: PersonRow, key: 'initials', columns: ['initials', 'name', 'meant', 'working'], lists: [], changes: true },
  pictures: {
    model: PictureRow,
    key: 'hash',
    columns: ['hash', 'type', 'width', 'height', 'size', ...signed],
    lists: [],
    changes: false,
  },
  kit: {
    model: KitRow,
    key: 'id',
    columns: ['id', 'kind', 'name', 'data', 'care', 'dueOn', 'version', 'archived'],
    kept: own('kit'),
    changes: true,
    lists: [
      {
        field: 'photos',
        model: AttachmentRow,
        foreign: 'kitItemId',
        columns: ['id', 'mime', ...signed],
        order: [
          ['at', 'ASC'],
          ['id', 'ASC'],
        ],
        key: 'id',
      },
    ],
  },
  limits: {
    model: LimitSheetRow,
    key: 'id',
    columns: ['id', 'name', 'version', 'archived'],
    changes: true,
    lists: [
      {
        field: 'versions',
        model: LimitVersionRow,
        foreign: 'limitSheetId',
        columns: ['id', 'version', 'content', ...signed],
        order: [['version', 'ASC']],
        key: 'id',
      },
    ],
  },
  machines: {
    model: MachineRow,
    key: 'id',
    columns: ['id', 'card', 'version', 'archived'],
    lists: [],
    kept: own('machines'),
    changes: true,
  },
  plans: { model: PlanRow, key: 'machineId', columns: ['machineId', 'settled', 'version'], lists: [], kept: own('plans'), changes: true },
  surveys: {
    model: SurveyRow,
    key: 'id',
    columns: [
      ...['id', 'machineId', 'title', 'startedAt', 'endedAt', 'school', 'rungs', 'skipped', 'startingLimits', 'limitVersionId'],
      ...['archived', 'version'],
    ],
    kept: own('surveys'),
    changes: true,
    lists: [
      { field: 'checks', model: CheckRow, foreign: 'surveyId', columns: ['id', 'kind'], order: [['kind', 'ASC']], key: 'kind' },
      {
        field: 'notes',
        model: NoteRow,
        foreign: 'surveyId',
        columns: ['id', 'kind', 'content', 'supersedes', ...signed],
        order: inSequence,
        key: 'id',
      },
      {
        field: 'namedDates',
        model: NamedDateRow,
        foreign: 'surveyId',
        columns: ['namedOn', 'p10', 'p50', 'p90'],
        order: [['namedOn', 'ASC']],
        key: 'namedOn',
      },
    ],
  },
  rounds: {
    model: RoundRow,
    key: 'id',
    columns: [
      ...['id', 'machineId', 'kind', 'setup', 'plan', 'instrument', 'instrumentName', 'conditions', 'purpose', 'note', 'ahead', 'struck'],
      ...[...signed, 'version'],
    ],
    kept: own('rounds'),
    changes: true,
    lists: [
      {
        field: 'readings',
        model: ReadingRow,
        foreign: 'roundId',
        columns: ['id', 'sequence', 'keys', 'value', 'bare', 'setUp', 'supersedes', 'why', ...signed],
        order: inSequence,
        key: 'id',
      },
    ],
  },
  moves: {
    model: MoveRow,
    key: 'id',
    columns: [
      ...['id', 'roundId', 'kind', 'quantity', 'amount', 'unit', 'direction', 'plan', 'ticks', 'shift', 'made', 'by', 'begunAt', 'doneAt'],
      'version',
    ],
    lists: [],
    changes: true,
  },
  surfaces: {
    model: SurfaceRow,
    key: 'id',
    columns: ['id', 'machineId', 'name', 'card', 'version'],
    kept: own('surfaces'),
    changes: true,
    lists: [
      {
        field: 'entries',
        model: SurfaceEntryRow,
        foreign: 'surfaceId',
        columns: ['id', 'kind', 'content', 'supersedes', ...signed],
        order: inSequence,
        key: 'id',
      },
    ],
  },
  'strip-downs': {
    model: StripDownRow,
    key: 'id',
    columns: ['id', 'machineId', 'name', 'archived', 'begunAt', 'version'],
    lists: [],
    changes: true,
  },
  parts: {
    model: PartRow,
    key: 'id',
    columns: [...['id', 'stripDownId', 'number', 'place', 'details', 'need', 'fitted', 'pictures', 'needState', 'standing', 'version']],
    lists: [],
    kept: own('parts'),
    changes: true,
  },
  remarks: {
    model: RemarkRow,
    key: 'id',
    columns: ['id', 'machineId', 'part', 'place', 'path', 'text', 'pictures', 'supersedes', ...signed],
    lists: [],
    changes: false,
  },
};

export type ThingKind = keyof typeof KEEPING;
export const THING_KINDS = Object.keys(KEEPING) as readonly ThingKind[];

/** Where a photograph lies, by the SHA-256 that it is named by. */
export const picturePath = (hash: string, type: string): string => `pictures/${hash}.${type}`;

/** Where a photograph of a piece of kit lies. */
export const photoPath = (kitId: string, { id, mime }: Readonly<Record<string, unknown>>): string =>
  `kit/${kitId}/${String(id)}.${String(mime).replace('image/', '')}`;

/** The file of a thing: `kit/<id>.json`. */
export const pathOf = (kind: ThingKind, key: string): string => `${kind}/${encodeURIComponent(key)}.json`;
