import * as z from 'zod';
import {
  ARCHIVED,
  boardSchema,
  calendarAddressSchema,
  cardThenSchema,
  condensedHeadsSchema,
  deskEntrySchema,
  deviceSchema,
  dueSchema,
  finderSchema,
  firstBrowserSchema,
  historySchema,
  jobSchema,
  KEPT,
  kitItemSchema,
  lanSchema,
  limitSheetWriteSchema,
  listedPersonSchema,
  logPageSchema,
  logQuerySchema,
  machineSchema,
  madeCalendarSchema,
  moveSchema,
  madeTokenSchema,
  nameDateSchema,
  neededPartSchema,
  newCalendarSchema,
  newTokenSchema,
  pairingCodeSchema,
  partSchema,
  partWriteSchema,
  personSchema,
  personWriteSchema,
  planWriteSchema,
  readingSchema,
  redateSchema,
  remarkSchema,
  reportLineSchema,
  reportQuerySchema,
  roundSchema,
  shopCardWriteSchema,
  shopPlanSchema,
  shopSchema,
  shopWriteSchema,
  stateHeadSchema,
  stateThenSchema,
  storedKitSchema,
  storedLimitSheetSchema,
  storedMachineSchema,
  storedPictureSchema,
  storedPlanSchema,
  storedReadingSchema,
  storedRoundSchema,
  storedShopCardSchema,
  storedStripDownSchema,
  storedSurfaceSchema,
  storedSurveySchema,
  strikeSchema,
  stripDownSchema,
  stripDownWriteSchema,
  surfaceSchema,
  surveyNoteSchema,
  surveySchema,
  tokenSchema,
  workedHoursSchema,
} from '@isometra/contract';
import { archiveQuery } from '../archiveFiles.js';
import { labelQuery, sheetQuery } from '../paper.js';
import { tableQuery, workbookQuery, XLSX } from '../tables.js';

/** One thing that the interface does. */
export interface Operation {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  /** Under /api, its variable parts in braces. */
  readonly path: string;
  readonly summary: string;
  readonly query?: z.ZodObject;
  readonly body?: z.ZodType;
  /** What a body is that is no JSON. */
  readonly bodyType?: string;
  readonly answer?: z.ZodType;
  /** What an answer is that is no JSON. */
  readonly type?: string;
  /** A body that runs as it stands. */
  readonly example?: unknown;
}

type More = Omit<Operation, 'method' | 'path' | 'summary'>;
const get = (path: string, summary: string, more: More = {}): Operation => ({ method: 'get', path, summary, ...more });
const post = (path: string, summary: string, more: More = {}): Operation => ({ method: 'post', path, summary, ...more });
const put = (path: string, summary: string, more: More = {}): Operation => ({ method: 'put', path, summary, ...more });
const remove = (path: string, summary: string, more: More = {}): Operation => ({ method: 'delete', path, summary, ...more });

const anything = z.record(z.string(), z.unknown());
const by = z.object({ by: z.string() });
const FORM = 'multipart/form-data';
const PICTURE = 'image/jpeg';
const LINES = 'application/x-ndjson';

const SHEET = {
  format: 'isometra-sheet/1',
  check: 'tailstock-traverse',
  instrument: { kind: 'lever', graduation: '0.002 mm' },
  setup: { centreDistance: '420 mm' },
  readings: [
    { plane: 'h', at: 20, value: 0 },
    { plane: 'h', at: 400, value: -9.5 },
  ],
};

/** Everything under /api, in the order of its description. A spec holds it against the routes themselves. */
export const OPERATIONS: readonly Operation[] = [
  post('/solve', 'Solve a sheet', { body: anything, answer: anything, example: SHEET }),
  post('/move', 'Plan a move', { body: anything, answer: anything }),
  post('/history', 'Tell the story of a machine', { body: historySchema, answer: anything }),
  post('/plan', 'Plan a job', { body: jobSchema, answer: anything }),
  get('/board', 'How every machine stands', { answer: boardSchema }),
  get('/machines', 'Machines of the shop', { answer: z.array(storedMachineSchema) }),
  post('/machines', 'Add a machine', { body: machineSchema.extend(by.shape), answer: storedMachineSchema }),
  get('/machines/{id}', 'A machine', { answer: storedMachineSchema }),
  put('/machines/{id}', 'Change the card of a machine', { body: machineSchema.extend(by.shape), answer: storedMachineSchema }),
  get('/machines/{id}/heads', 'Rounds of a machine, each in short with what it says', { answer: condensedHeadsSchema }),
  get('/machines/{id}/rounds', 'Rounds of a machine with their readings', {
    query: z.object({ check: z.string().optional() }),
    answer: z.array(storedRoundSchema),
  }),
  get('/machines/{id}/surveys', 'Surveys of a machine', { answer: z.array(storedSurveySchema) }),
  get('/machines/{id}/surfaces', 'Faces of a machine', { answer: z.array(storedSurfaceSchema) }),
  get('/machines/{id}/strip-downs', 'What was taken apart of a machine', { answer: z.array(storedStripDownSchema) }),
  get('/machines/{id}/plan', 'What is left to do on a machine', { answer: shopPlanSchema }),
  put('/machines/{id}/plan', 'Settle something of a plan', { body: planWriteSchema, answer: storedPlanSchema }),
  post('/machines/{id}/plan/named', 'Name a date', { body: nameDateSchema }),
  get('/machines/{id}/hours', 'Hours that were timed', { answer: z.array(workedHoursSchema) }),
  post('/surveys', 'Begin a survey', { body: surveySchema, answer: storedSurveySchema }),
  put('/surveys/{id}', 'Change a survey', { body: surveySchema, answer: storedSurveySchema }),
  post('/surveys/{id}/notes', 'Write something down in a survey', { body: surveyNoteSchema, answer: surveyNoteSchema }),
  get('/surveys/{id}/report.pdf', 'The acceptance report of a survey', { query: reportQuerySchema, type: 'application/pdf' }),
  get('/surveys/{id}/report', 'Make the acceptance report of a survey, telling how far it is: lines of JSON', {
    query: reportQuerySchema,
    answer: reportLineSchema,
    type: LINES,
  }),
  get('/reports/{ticket}.pdf', 'A report that was made a moment ago, by its ticket', { type: 'application/pdf' }),
  post('/rounds', 'Begin a round', { body: roundSchema, answer: roundSchema }),
  get('/rounds/{id}', 'A round with its readings', { answer: storedRoundSchema }),
  put('/rounds/{id}', 'Change the set-up of a round', { body: roundSchema, answer: roundSchema }),
  get('/rounds/{id}/finding', 'What a round says', { answer: anything }),
  get('/rounds/{id}/card', 'The machine card that a round goes by', { answer: cardThenSchema }),
  get('/rounds/{id}/events', 'What happens to a round, as it happens', { type: 'text/event-stream' }),
  get('/rounds/{id}/sheet.pdf', 'A blank sheet for a round', {
    query: sheetQuery,
    type: 'application/pdf',
  }),
  get('/rounds/{id}/sheet.json', 'A round as a sheet, isometra-sheet/1', { answer: anything }),
  post('/rounds/{id}/readings', 'Take a reading, or several', {
    body: z.union([readingSchema, z.array(readingSchema)]),
    answer: z.union([storedReadingSchema, z.array(storedReadingSchema)]),
  }),
  post('/rounds/{id}/strike', 'Strike a round out, or let it count again', { body: strikeSchema, answer: roundSchema }),
  post('/rounds/{id}/date', 'Give a round another date', { body: redateSchema, answer: roundSchema }),
  post('/moves', 'Begin a move', { body: moveSchema, answer: moveSchema }),
  put('/moves/{id}', 'Change a move: ticks, what was seen, when it was done', { body: moveSchema, answer: moveSchema }),
  post('/surfaces', 'Add a face', { body: surfaceSchema.extend(by.shape), answer: surfaceSchema }),
  put('/surfaces/{id}', 'Change a face', { body: surfaceSchema.extend(by.shape), answer: surfaceSchema }),
  post('/surfaces/{id}/entries', 'Write something down at the scraping desk', { body: deskEntrySchema, answer: deskEntrySchema }),
  post('/pictures', 'Keep a photograph', { query: by, bodyType: PICTURE, answer: storedPictureSchema }),
  get('/pictures/{hash}', 'A photograph', { type: PICTURE }),
  post('/strip-downs', 'Begin to take something apart', { body: stripDownWriteSchema, answer: stripDownSchema }),
  put('/strip-downs/{id}', 'Change what is taken apart', { body: stripDownWriteSchema, answer: stripDownSchema }),
  get('/parts', 'Parts that something is needed for', { answer: z.array(neededPartSchema) }),
  post('/parts', 'Add a part that came off', { body: partWriteSchema, answer: partSchema }),
  put('/parts/{id}', 'Change a part', { body: partWriteSchema, answer: partSchema }),
  get('/kit', 'Kit of the shop', { answer: z.array(storedKitSchema) }),
  post('/kit', 'Add a piece of kit', { body: kitItemSchema.extend(by.shape), answer: storedKitSchema }),
  put('/kit/{id}', 'Change a piece of kit', { body: kitItemSchema.extend(by.shape), answer: storedKitSchema }),
  post('/kit/{id}/photos', 'Add a photograph of a piece of kit', {
    query: by.extend({ id: z.uuid() }),
    bodyType: PICTURE,
    answer: storedKitSchema,
  }),
  remove('/kit/{id}/photos/{photo}', 'Take a photograph off a piece of kit', { query: by, answer: storedKitSchema }),
  get('/photos/{id}', 'A photograph of a piece of kit', { type: PICTURE }),
  get('/limits', 'Limit sheets of the shop', { answer: z.array(storedLimitSheetSchema) }),
  post('/limits', 'Add a limit sheet', { body: limitSheetWriteSchema, answer: storedLimitSheetSchema }),
  put('/limits/{id}', 'A new version of a limit sheet', { body: limitSheetWriteSchema, answer: storedLimitSheetSchema }),
  get('/limits/{id}/versions', 'Every version of a limit sheet', { answer: z.array(storedLimitSheetSchema) }),
  ...ARCHIVED.map((kind) =>
    post(`/${kind}/{id}/archive`, `Put something of the ${kind} in the archive, or take it out`, { body: anything }),
  ),
  ...KEPT.flatMap((kind) => [
    get(`/${kind}/{id}/states`, `Earlier states: ${kind}`, { answer: z.array(stateHeadSchema) }),
    get(`/${kind}/{id}/states/{version}`, `An earlier state as it stood: ${kind}`, { answer: stateThenSchema }),
  ]),
  get('/log', 'The logbook', { query: logQuerySchema, answer: logPageSchema }),
  get('/remarks', 'Notes of a screen', { query: z.object({ path: z.string() }), answer: z.array(remarkSchema) }),
  post('/remarks', 'Write a note', { body: remarkSchema, answer: remarkSchema }),
  get('/finder', 'Everything that can be gone to', { answer: finderSchema }),
  get('/plans', 'What is left to do in the shop', { answer: shopPlanSchema }),
  get('/due', 'What is due', { answer: dueSchema }),
  get('/calendar.ics', 'The calendar of the shop', { type: 'text/calendar' }),
  get('/calendars', 'Addresses of the calendar', { answer: z.array(calendarAddressSchema) }),
  post('/calendars', 'Make an address for the calendar', { body: newCalendarSchema, answer: madeCalendarSchema }),
  remove('/calendars/{id}', 'Revoke an address of the calendar', { query: by, answer: z.array(calendarAddressSchema) }),
  get('/people', 'People of the shop', { answer: z.array(listedPersonSchema) }),
  put('/people/{initials}', 'Add or change a person', { body: personWriteSchema, answer: personSchema }),
  get('/shop', 'The time zone of the shop', { answer: shopSchema }),
  put('/shop', 'Choose the time zone of the shop', { body: shopWriteSchema, answer: shopSchema }),
  post('/shop/first-browser', 'The time zone of the first browser', { body: firstBrowserSchema, answer: shopSchema }),
  get('/shop/card', 'The page of the shop', { answer: storedShopCardSchema }),
  put('/shop/card', 'Change the page of the shop', { body: shopCardWriteSchema, answer: storedShopCardSchema }),
  get('/archive.zip', 'An archive of the shop, a machine or a survey', {
    query: archiveQuery,
    type: 'application/zip',
  }),
  get('/archive/fingerprint', 'The fingerprint that an archive would have', {
    query: archiveQuery,
    answer: anything,
  }),
  post('/archive/look', 'What importing an archive would do', { bodyType: FORM, type: LINES }),
  post('/archive', 'Import an archive', { bodyType: FORM, type: LINES }),
  get('/tables/{name}.csv', 'A table for spreadsheets', {
    query: tableQuery,
    type: 'text/csv',
  }),
  get('/tables/{name}.xlsx', 'A table as a workbook', {
    query: workbookQuery,
    type: XLSX,
  }),
  get('/labels.pdf', 'Labels with codes', { query: labelQuery, type: 'application/pdf' }),
  get('/lan', 'Whether devices of the network are let in', { answer: lanSchema }),
  post('/lan/code', 'A code for one device', { answer: pairingCodeSchema }),
  get('/devices', 'Devices that are let in', { answer: z.array(deviceSchema) }),
  remove('/devices/{id}', 'Shut a device out', { query: by, answer: z.array(deviceSchema) }),
  get('/tokens', 'Tokens that may read', { answer: z.array(tokenSchema) }),
  post('/tokens', 'Make a token that may read', { body: newTokenSchema, answer: madeTokenSchema }),
  remove('/tokens/{id}', 'Revoke a token', { query: by, answer: z.array(tokenSchema) }),
  post('/demo', 'Fill an empty shop with the demo', { answer: z.array(storedMachineSchema) }),
];
