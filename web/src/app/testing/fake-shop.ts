import { textFaults } from '@isometra/core/practice';
import type { Board } from '@isometra/contract/board';
import { HttpBackend, type HttpEvent, type HttpRequest, HttpErrorResponse, HttpResponse, provideHttpClient } from '@angular/common/http';
import { type EnvironmentProviders, type Provider, type Type } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { Observable, firstValueFrom } from 'rxjs';
import { condense, roundWriteOf } from '@isometra/contract';
import type {
  DeskEntry,
  StateHead,
  KitItem,
  LogEntry,
  LogPage,
  Finder,
  Remark,
  CalendarAddress,
  CardThen,
  Due,
  MadeCalendar,
  PlanWrite,
  ShopPlan,
  StoredPlan,
  WorkedHours,
  Machine,
  MoveWrite,
  ReadingWrite,
  Redate,
  RoundHead,
  Shop,
  Strike,
  StoredSurface,
  ListedPerson,
  Person,
  StoredShopCard,
  StoredStripDown,
  StripDown,
  PartWrite,
  Surface,
  RoundWrite,
  StoredLimitSheet,
  StoredReading,
  StoredRound,
  StoredSurvey,
  SurveyNote,
  SurveyWrite,
} from '@isometra/contract';
import {
  campaignOf,
  freshSurvey,
  headOf,
  pendingOf,
  sheetOf,
  solveWhatStands,
  plateOf,
  ladderFacts,
  readCard,
  ruling,
} from '@isometra/work';
import { STARTING_SHEETS, startingSheet, type Fault, type LimitSheet } from '@isometra/core';
import { EVENTS } from '../data/live';
import { OUTBOX_NAME } from '../data/outbox';
import { Settings } from '../data/settings';
import { MachineStore } from '../machine/machine-store';

/** What was written to the server, and how; the spec knows what it is. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
interface Write<Body = any> {
  readonly method: string;
  readonly path: string;
  readonly body: Body;
}

/** What the server says instead of doing what it was asked. */
export interface Refusal {
  readonly status: number;
  readonly faults: readonly Fault[];
  readonly current?: unknown;
}

export const refusal = (status: number, message: string, current?: unknown, path = ''): Refusal => ({
  status,
  faults: [{ path, message, example: 'another' }],
  ...(current !== undefined && { current }),
});

type Route = readonly [method: string, path: RegExp, answer: (match: RegExpExecArray, body: never) => unknown];

/** A server in memory that answers later, as a real one does; what it was told, and how long it takes, is the spec's to say. */
export class FakeServer implements HttpBackend {
  readonly sent: Write[] = [];
  /** Every path that was asked for. */
  readonly asked: string[] = [];
  machines: Machine[] = [lathe()];
  kit: KitItem[] = [dial(), drawer()];
  rounds: StoredRound[] = [];
  /** Heads of rounds that are told as they are, without readings behind them. */
  told: RoundHead[] = [];
  surveys: StoredSurvey[] = [survey()];
  surfaces: StoredSurface[] = [];
  limits: StoredLimitSheet[] = [];
  versions: StoredLimitSheet[] = [];
  log: LogEntry[] = [];
  remarks: Remark[] = [];
  stripDowns: StoredStripDown[] = [];
  shopCard: StoredShopCard = { card: {}, mark: null, version: 0 };
  people: ListedPerson[] = [];
  /** The plan of every machine. */
  plan: ShopPlan = { today: '2026-12-01', timeZone: null, people: [], machines: [], named: [], widen: 1 };
  hours: WorkedHours[] = [];
  due: Due = { today: '2026-12-01', items: [] };
  calendars: CalendarAddress[] = [];
  finder: Finder = { machines: [], faces: [], kit: [], sheets: [], parts: [], people: [], rounds: [] };
  /** Pages of the logbook that are given one after another, before `log` is. */
  logPages: LogPage[] = [];
  shop: Shop = { timeZone: null, chosenBy: null };
  /** The next write is refused with this. */
  refuse: Refusal | undefined;
  /** It fails on writes like this one, however often they come. */
  chokesOn: (body: unknown) => boolean = () => false;
  /** It cannot be reached. */
  down = false;
  /** Which answers are held back until `letGo`: what comes before what is then the spec's to say, however busy the machine. */
  holds = (_method: string, _path: string): boolean => false;
  private readonly held: (() => void)[] = [];
  /** Requests that have not been answered yet. */
  inFlight = 0;
  letGo(): void {
    for (const give of this.held.splice(0)) give();
  }
  /** How long an answer takes, ms. */
  latency = (_method: string, _path: string): number => 1;

  /** Whether the network is let in; off as a rule. */
  lan = { on: false, address: '', picture: '' };
  devices: readonly { readonly id: string; readonly name: string; readonly pairedAt: string; readonly seenAt: string }[] = [];

  /** Machine cards that old rounds go by, by the round. */
  readonly cardsThen = new Map<string, CardThen>();
  /** Earlier states of everything, newest first. */
  states: readonly (StateHead & { readonly state: object })[] = [];

  /** Who listens for what happens to a round. */
  readonly listening: { readonly address: string; onmessage: ((event: { data: string }) => void) | null }[] = [];
  listen(address: string) {
    const source = { address, onopen: null, onerror: null, onmessage: null, readyState: 1, close: () => this.leave(source) };
    this.listening.push(source);
    return source;
  }
  private leave(source: object): void {
    this.listening.splice(this.listening.indexOf(source as never), 1);
  }

  handle(request: HttpRequest<unknown>): Observable<HttpEvent<unknown>> {
    return new Observable((told) => {
      const path = request.urlWithParams.replace(/^\/api/, '');
      this.asked.push(`${request.method} ${path}`);
      // What is asked for is looked up when it is asked; the answer comes when it comes.
      const answer = this.down ? new HttpErrorResponse({ status: 0 }) : this.answer(request.method, path, request.body);
      this.inFlight += 1;
      let open = true;
      const end = (): void => {
        if (open) this.inFlight -= 1;
        open = false;
      };
      told.add(end);
      const give = (): void => {
        end();
        if (answer instanceof HttpErrorResponse) return told.error(answer);
        told.next(new HttpResponse({ status: 200, body: answer }));
        told.complete();
      };
      if (this.holds(request.method, path)) return void this.held.push(give);
      const timer = setTimeout(give, this.latency(request.method, path));
      return () => clearTimeout(timer);
    });
  }

  private answer(method: string, path: string, body: unknown): unknown {
    if (method !== 'GET' && this.refuse) {
      const { status, faults, current } = this.refuse;
      this.refuse = undefined;
      return new HttpErrorResponse({ status, error: { errors: faults, ...(current !== undefined && { current }) } });
    }
    if (method !== 'GET' && this.chokesOn(body))
      return new HttpErrorResponse({ status: 500, error: { errors: [{ path: '', message: 'something went wrong', example: '' }] } });
    for (const [of, at, act] of this.routes) {
      const match = of === method ? at.exec(path) : null;
      if (!match) continue;
      const copy = body instanceof Blob ? body : (structuredClone(body) as never);
      if (method !== 'GET') this.sent.push({ method, path, body: copy as never });
      const answer = act(match, copy as never);
      if (answer === undefined) break;
      return structuredClone(answer);
    }
    return new HttpErrorResponse({ status: 404, error: { errors: [{ path: 'id', message: 'no such thing', example: '' }] } });
  }

  private keepStripDown({ id, machineId, name, archived, version, at }: StripDown & { at: string }): StripDown {
    const parts = this.stripDowns.find((one) => one.id === id)?.parts ?? [];
    const saved = { id, machineId, name, ...(archived && { archived }), version };
    this.stripDowns = [...this.stripDowns.filter((one) => one.id !== id), { ...saved, begunAt: at, parts }];
    return saved;
  }

  private settle({ by: _by, ...settled }: PlanWrite): StoredPlan {
    const stored = { ...settled, version: settled.version + 1 };
    const machines = this.plan.machines.map((one) => (one.machineId === stored.machineId ? { ...one, settled: stored } : one));
    this.plan = { ...this.plan, machines };
    return stored;
  }

  private makeCalendar(name: string, by: string): MadeCalendar {
    const made = { id: crypto.randomUUID(), name, by, at: NOW };
    this.calendars = [...this.calendars, made];
    return { ...made, address: `/calendar/${'s'.repeat(32)}.ics` };
  }

  private keepPerson(person: Person): Person {
    const before = this.people.find(({ initials }) => initials === person.initials);
    const others = this.people.filter((one) => one !== before);
    this.people = [...others, { ...person, entries: before?.entries ?? 0, added: true }];
    return person;
  }

  private keepPart({ by: _by, at: _at, ...part }: PartWrite) {
    this.stripDowns = this.stripDowns.map((one) =>
      one.id === part.stripDownId ? { ...one, parts: [...one.parts.filter(({ id }) => id !== part.id), part] } : one,
    );
    return part;
  }

  private needed() {
    return this.stripDowns.flatMap(({ machineId, name, parts }) =>
      parts.map((part) => ({
        machineId,
        machine: this.machines.find(({ id }) => id === machineId)?.card.number ?? '',
        stripDown: name,
        part,
      })),
    );
  }

  private readonly routes: readonly Route[] = [
    ['GET', /^\/machines$/, () => this.machines],
    ['GET', /^\/board$/, () => this.board()],
    ['GET', /^\/lan$/, () => this.lan],
    ['POST', /^\/lan\/code$/, () => ({ code: '042817', until: '2026-03-01T08:10:00.000Z' })],
    ['GET', /^\/devices$/, () => this.devices],
    ['DELETE', /^\/devices\/([^?]+)/, ([, id]) => (this.devices = this.devices.filter((device) => device.id !== id))],
    ['GET', /^\/shop\/card$/, () => this.shopCard],
    ['PUT', /^\/shop\/card$/, (_match, { card, mark, version }: StoredShopCard) => (this.shopCard = { card, mark, version: version + 1 })],
    ['GET', /^\/people$/, () => this.people],
    [
      'PUT',
      /^\/people\/[^/]+$/,
      (_match, { initials, name, meant, working }: Person) =>
        this.keepPerson({ initials, name, meant, ...(working !== undefined && { working }) }),
    ],
    ['GET', /^\/shop$/, () => this.shop],
    ['POST', /^\/shop\/first-browser$/, (_match, { timeZone }: Shop) => (this.shop = { timeZone, chosenBy: null })],
    ['PUT', /^\/shop$/, (_match, { timeZone, by }: { timeZone: string; by: string }) => (this.shop = { timeZone, chosenBy: by })],
    ['POST', /^\/rounds\/([^/]+)\/strike$/, (_match, body: Strike) => this.strike(body)],
    ['POST', /^\/rounds\/([^/]+)\/date$/, (_match, body: Redate) => this.redate(body)],
    [
      'GET',
      /^\/(?:machines|kit|surfaces|parts|shops|surveys|rounds)\/[^/]+\/states$/,
      () => this.states.map(({ state: _state, ...head }) => head),
    ],
    [
      'GET',
      /^\/(?:machines|kit|surfaces|parts|shops|surveys|rounds)\/[^/]+\/states\/(\d+)$/,
      ([, at]) => this.states.find(({ version }) => version === Number(at)),
    ],
    ['GET', /^\/machines\/([^/]+)$/, ([, id]) => this.machines.find((entry) => entry.id === id)],
    ['GET', /^\/machines\/([^/]+)\/surveys$/, ([, id]) => this.surveys.filter((entry) => entry.machineId === id)],
    ['GET', /^\/machines\/([^/]+)\/heads\?condensed=1$/, ([, id]) => condense(this.heads(id))],
    ['GET', /^\/log/, () => this.logPages.shift() ?? { entries: this.log, next: null, choices: { people: ['HB', 'SD'], parts: [] } }],
    ['GET', /^\/machines\/([^/]+)\/rounds/, ([, id]) => this.rounds.filter((round) => round.machineId === id)],
    ['GET', /^\/rounds\/([^/]+)\/card$/, ([, id]) => this.cardsThen.get(id)],
    ['GET', /^\/rounds\/([^/]+)$/, ([, id]) => this.rounds.find((entry) => entry.id === id)],
    ['GET', /^\/machines\/([^/]+)\/strip-downs$/, ([, id]) => this.stripDowns.filter((one) => one.machineId === id)],
    ['POST', /^\/strip-downs$/, (_match, body: StripDown & { at: string }) => this.keepStripDown(body)],
    [
      'PUT',
      /^\/strip-downs\/[^/]+$/,
      (_match, body: StripDown & { at: string }) => this.keepStripDown({ ...body, version: body.version + 1 }),
    ],
    ['GET', /^\/parts$/, () => this.needed()],
    ['POST', /^\/parts$/, (_match, body: PartWrite) => this.keepPart(body)],
    ['PUT', /^\/parts\/[^/]+$/, (_match, body: PartWrite) => this.keepPart({ ...body, version: body.version + 1 })],
    ['GET', /^\/plans$/, () => this.plan],
    [
      'GET',
      /^\/machines\/([^/]+)\/plan$/,
      ([, id]) => ({ ...this.plan, machines: this.plan.machines.filter((one) => one.machineId === id) }),
    ],
    ['PUT', /^\/machines\/([^/]+)\/plan$/, (_match, body: PlanWrite) => this.settle(body)],
    ['POST', /^\/machines\/[^/]+\/plan\/named$/, () => ({})],
    ['GET', /^\/machines\/[^/]+\/hours$/, () => this.hours],
    ['GET', /^\/due$/, () => this.due],
    ['GET', /^\/calendars$/, () => this.calendars],
    ['POST', /^\/calendars$/, (_match, { name, by }: { name: string; by: string }) => this.makeCalendar(name, by)],
    ['DELETE', /^\/calendars\/([^?]+)/, ([, id]) => (this.calendars = this.calendars.filter((one) => one.id !== id))],
    ['GET', /^\/kit$/, () => this.kit],
    ['GET', /^\/photos\//, () => new Blob(['picture'])],
    ['GET', /^\/limits$/, () => this.limits],
    ['GET', /^\/limits\/[^/]+\/versions$/, () => this.versions],
    [
      'POST',
      /^\/(machines|kit|limits|surveys)\/([^/]+)\/archive$/,
      ([, kind, id], body: { away: boolean; by: string }) => this.archive(kind, id, body),
    ],
    ['POST', /^\/machines$/, (_match, body) => this.put(this.machines, body)],
    ['PUT', /^\/machines\//, (_match, body) => this.put(this.machines, body)],
    ['POST', /^\/kit$/, (_match, body) => this.put(this.kit, body)],
    ['PUT', /^\/kit\//, (_match, body) => this.put(this.kit, body)],
    ['DELETE', /^\/kit\/([^/]+)\/photos\/([^?]+)\?by=/, ([, kit, id]) => this.takeOff(kit, id)],
    ['POST', /^\/kit\/([^/]+)\/photos\?id=([^&]+)/, ([, kit, id]) => this.photograph(kit, id)],
    ['POST', /^\/limits$/, (_match, body: StoredLimitSheet) => this.put(this.limits, { ...body, at: NOW })],
    ['PUT', /^\/limits\//, (_match, body: StoredLimitSheet) => this.put(this.limits, { ...body, at: NOW })],
    ['GET', /^\/machines\/([^/]+)\/surfaces$/, ([, id]) => this.surfaces.filter((entry) => entry.machineId === id)],
    ['POST', /^\/surfaces$/, (_match, body: Surface) => this.addSurface(body)],
    ['PUT', /^\/surfaces\//, (_match, body: Surface) => this.addSurface(body)],
    ['POST', /^\/surfaces\/[^/]+\/entries$/, (_match, body: DeskEntry) => this.writeEntry(body)],
    ['GET', /^\/finder$/, () => this.finder],
    ['POST', /^\/remarks$/, (_match, body: Remark) => (this.remarks.push(body), body)],
    ['GET', /^\/remarks\?path=(.*)$/, ([, path]) => this.remarks.filter(({ place }) => place.path === decodeURIComponent(path))],
    ['POST', /^\/pictures/, () => ({ hash: 'a'.repeat(64), type: 'jpeg', width: 1, height: 1, size: 1 })],
    ['POST', /^\/surveys$/, (_match, body: SurveyWrite) => this.begin(body)],
    ['PUT', /^\/surveys\//, (_match, body: SurveyWrite) => this.changeSurvey(body)],
    ['POST', /^\/surveys\/[^/]+\/notes$/, (_match, body: SurveyNote) => this.write(body)],
    ['POST', /^\/rounds$/, (_match, body: RoundWrite) => this.beginRound(body)],
    ['PUT', /^\/rounds\/([^/]+)$/, (_match, body: RoundWrite) => this.changeRound(body)],
    ['POST', /^\/rounds\/([^/]+)\/readings$/, ([, id], body: ReadingWrite) => this.takeDown(id, body)],
    ['POST', /^\/moves$/, (_match, body: MoveWrite) => this.move(body)],
    ['PUT', /^\/moves\//, (_match, body: MoveWrite) => this.move({ ...body, version: body.version + 1 })],
    [
      'POST',
      /^\/demo$/,
      () => {
        this.machines = [lathe(), { ...lathe(), id: OTHER, card: { ...lathe().card, number: 'L-15' } }];
        return this.machines;
      },
    ],
  ];

  private archive(kind: string, id: string, { away, by }: { away: boolean; by: string }): object | undefined {
    const rows: { id: string; archived?: { at: string; by: string } }[] =
      { machines: this.machines, kit: this.kit, limits: this.limits, surveys: this.surveys }[kind] ?? [];
    const row = rows.find((entry) => entry.id === id);
    if (!row) return undefined;
    if (away) row.archived = { at: NOW, by };
    else delete row.archived;
    return row.archived ? { archived: row.archived } : {};
  }

  /** Put a row in the place of the one with its id: a version more where there is one. */
  private put<Row extends { id: string; version: number }>(rows: Row[], body: Row): Row {
    const at = rows.findIndex(({ id }) => id === body.id);
    const row = { ...body, version: at < 0 ? 1 : body.version + 1 };
    if (at < 0) rows.push(row);
    else rows[at] = row;
    return row;
  }

  private takeOff(kitId: string, id: string): KitItem | undefined {
    const item = this.kit.find((entry) => entry.id === kitId);
    if (item) item.photos = item.photos.filter((photo) => photo !== id);
    return item;
  }

  private photograph(kitId: string, id: string): KitItem | undefined {
    const item = this.kit.find((entry) => entry.id === kitId);
    if (item && !item.photos.includes(id)) item.photos.push(id);
    return item;
  }

  private heads(machineId: string): RoundHead[] {
    const worked = this.rounds
      .filter((round) => round.machineId === machineId)
      .map((round) => {
        const own = this.surveys.find(({ id }) => id === round.surveyId);
        const sheet = sheetOf(round, round.readings, own ? { limits: own.judge, pending: pendingOf(campaignOf(own)) } : {});
        return headOf(round, solveWhatStands(sheet), sheet);
      });
    return [...worked, ...this.told.filter((head) => head.machineId === machineId)];
  }

  private begin(body: SurveyWrite): StoredSurvey {
    this.surveys = this.surveys.map((entry) => ({ ...entry, endedAt: entry.endedAt ?? body.startedAt }));
    return this.put(this.surveys, { ...body, judge: judgeOf(body), notes: [] });
  }

  private board(): Board {
    const surveys = (id: string) => this.surveys.filter(({ machineId }) => machineId === id).map(campaignOf);
    const plates = this.machines.map(({ id, card }) => ({
      machineId: id,
      last: { text: 'Bar between centres: round begun', by: 'EK', at: NOW },
      ...plateOf({
        kind: card.kind,
        rounds: ruling(this.heads(id)),
        surveys: surveys(id),
        facts: { now: new Date().toISOString(), ...ladderFacts(readCard(card)) },
      }),
    }));
    return { plates, kit: [{ name: 'Old bar', days: 3 }] };
  }

  private addSurface({ by: _by, ...body }: Surface & { by?: string }): Surface {
    const entries = this.surfaces.find(({ id }) => id === body.id)?.entries ?? [];
    this.put(this.surfaces, { ...body, entries });
    return body;
  }

  private writeEntry(body: DeskEntry): DeskEntry {
    this.surfaces = this.surfaces.map((entry) => (entry.id === body.surfaceId ? { ...entry, entries: [...entry.entries, body] } : entry));
    return body;
  }

  private changeSurvey(body: SurveyWrite): StoredSurvey {
    const notes = this.surveys.find(({ id }) => id === body.id)?.notes ?? [];
    return this.put(this.surveys, { ...body, judge: judgeOf(body), notes });
  }

  private write(note: SurveyNote): SurveyNote {
    this.surveys = this.surveys.map((entry) => (entry.id === note.surveyId ? { ...entry, notes: [...entry.notes, note] } : entry));
    return note;
  }

  private beginRound(body: RoundWrite): RoundWrite {
    const number = this.rounds.filter(({ check }) => check === body.check).length + 1;
    if (!this.rounds.some(({ id }) => id === body.id)) this.rounds.push({ ...body, surveyId: SURVEY, number, readings: [], moves: [] });
    return body;
  }

  private changeRound(body: RoundWrite): RoundWrite {
    const now = { ...body, version: body.version + 1 };
    this.rounds = this.rounds.map((round) => (round.id === body.id ? { ...round, ...now } : round));
    return now;
  }

  private strike({ id, why, by, version }: Strike): RoundWrite | undefined {
    this.rounds = this.rounds.map(({ struck, ...round }) =>
      round.id !== id ? { ...round, struck } : { ...round, version: version + 1, ...(why !== null && { struck: { why, by, at: NOW } }) },
    );
    const round = this.rounds.find((entry) => entry.id === id);
    return round && roundWriteOf(round);
  }

  private redate({ id, at, version }: Redate): RoundWrite | undefined {
    this.rounds = this.rounds.map(({ ahead, ...round }) =>
      round.id === id ? { ...round, at, version: version + 1 } : { ...round, ahead },
    );
    const round = this.rounds.find((entry) => entry.id === id);
    return round && roundWriteOf(round);
  }

  private takeDown(id: string, body: ReadingWrite): StoredReading[] | undefined {
    const round = this.rounds.find((entry) => entry.id === id);
    if (!round) return undefined;
    const known = round.readings.find((reading) => reading.id === body.id);
    const reading = known ?? { ...body, roundId: id, sequence: round.readings.length + 1 };
    if (!known) this.rounds = this.rounds.map((entry) => (entry.id === id ? { ...entry, readings: [...entry.readings, reading] } : entry));
    return [reading];
  }

  private move(body: MoveWrite): MoveWrite {
    this.rounds = this.rounds.map((round) =>
      round.id === body.roundId ? { ...round, moves: [...round.moves.filter(({ id }) => id !== body.id), body] } : round,
    );
    return body;
  }
}

const NOW = '2026-02-01T08:00:00.000Z';
/** Made-up ids that are nobody's. */
export const LATHE = 'a1b0c4d2-0000-4000-8000-000000000001';
export const OTHER = 'a1b0c4d2-0000-4000-8000-000000000002';
export const SURVEY = 'a1b0c4d2-0000-4000-8000-000000000003';
export const DIAL = 'a1b0c4d2-0000-4000-8000-000000000004';
export const DRAWER = 'a1b0c4d2-0000-4000-8000-000000000005';

/** The sheet that a survey judges by, as the server writes it out. */
function judgeOf({ limits }: Pick<SurveyWrite, 'limits'>): LimitSheet {
  return startingSheet(STARTING_SHEETS.find((entry) => entry.id === limits.sheet)?.id ?? 'general');
}

export const lathe = (): Machine => ({
  id: LATHE,
  card: {
    number: 'L-14',
    nickname: 'the long lathe',
    kind: 'engine-lathe',
    swing: '420 mm',
    centreDistance: '1500 mm',
    adjuster: { pitch: '1.5 mm' },
    base: { length: '200 mm', width: '120 mm', bolt: '16 mm', bolts: 1, overhang: '60 mm' },
  },
  version: 3,
});

/** The running survey of the lathe. */
export const survey = (): StoredSurvey => freshSurvey({ id: LATHE, kind: 'engine-lathe' }, SURVEY, 'As found', '2026-01-01T00:00:00.000Z');

export const dial = (): KitItem => ({
  id: DIAL,
  kind: 'instrument',
  name: 'Lever dial',
  data: { kind: 'lever', graduation: '0.002 mm' },
  care: {},
  photos: [],
  version: 1,
});
export const drawer = (): KitItem => ({
  id: DRAWER,
  kind: 'shim-stock',
  name: 'Drawer',
  data: {
    stock: [
      { thickness: '0.02 mm', count: 4 },
      { thickness: '0.05 mm', count: 2 },
    ],
  },
  care: {},
  photos: [],
  version: 1,
});

let serial = 0;
/** Every spec begins with the same day: a day later with every round of them all, rounds would in the end be dated ahead of now. */
let loaded: number | undefined;
beforeEach(() => (serial = loaded ??= serial));

/** A round with what it said. */
export type TestRound = StoredRound & Pick<ReturnType<typeof solveWhatStands>, 'finding'>;

/** A round of a bar between centres that found the tailstock at these offsets, µm. */
export function barRound(offsetH: number, offsetV: number, more: Partial<RoundWrite> & { moves?: Partial<MoveWrite>[] } = {}): TestRound {
  const { moves = [], ...own } = more;
  serial += 1;
  const write: RoundWrite = {
    id: crypto.randomUUID(),
    machineId: LATHE,
    check: 'tailstock-traverse',
    setup: { centreDistance: '400 mm' },
    plan: { stations: 2 },
    instrument: { kind: 'lever', graduation: '0.002 mm', sense: 1 },
    instrumentName: 'Lever dial',
    conditions: { quillLock: 'on', place: 600 },
    purpose: null,
    by: 'HB',
    at: new Date(Date.UTC(2026, 0, serial)).toISOString(),
    version: 1,
    ...own,
  };
  const at = (place: number, plane: string, value: number, sequence: number): StoredReading => ({
    ...{ id: crypto.randomUUID(), roundId: write.id, sequence, keys: { plane, at: place }, value: `${value} um`, set: 1 },
    ...{ supersedes: null, why: null, by: 'HB', at: write.at },
  });
  const readings = [
    at(20, 'h', 0, 1),
    at(380, 'h', offsetH * 0.9, 2),
    at(20, 'v', 0, 3),
    at(380, 'v', offsetV * 0.9, 4),
    at(20, 'h', 0, 5),
  ];
  const { finding } = solveWhatStands(sheetOf(write, readings, { card: lathe().card, stock: drawer().data['stock'] as unknown[] }));
  const later = (hours: number): string => new Date(Date.parse(write.at) + hours * 3_600_000).toISOString();
  const done = moves.map((move): MoveWrite => ({
    ...{ id: crypto.randomUUID(), roundId: write.id, kind: 'adjuster', quantity: 'offsetHorizontal', amount: -offsetH, unit: 'um' },
    ...{
      direction: 'away from the operator',
      plan: {},
      ticks: [],
      shift: null,
      by: 'HB',
      begunAt: later(0.5),
      doneAt: later(1),
      version: 1,
    },
    ...move,
  }));
  return { ...write, surveyId: SURVEY, number: serial, readings, moves: done, finding };
}

/** What a round said, without its readings. */
export function toldHead(check: string, quantities: Readonly<Record<string, number>>, more: Partial<RoundHead> = {}): RoundHead {
  serial += 1;
  const quantity = (value: number) => ({ value, unit: 'um', expanded: 1, direction: null, limit: null, aim: null, verdict: null });
  return {
    ...{ id: crypto.randomUUID(), machineId: LATHE, surveyId: SURVEY, check, number: 1, instrumentName: null, conditions: {}, by: 'HB' },
    ...{ at: new Date(Date.UTC(2026, 0, serial)).toISOString(), version: 1, last: 1, mounting: null, sense: null, moves: [] },
    finding: { quantities: Object.fromEntries(Object.entries(quantities).map(([name, value]) => [name, quantity(value)])), notes: [] },
    ...more,
  };
}

/** A round as a practice model read it. */
export function practiceRound(raw: unknown, more: Partial<RoundWrite> = {}): TestRound {
  const { check, setup, instrument, readings } = raw as Pick<RoundWrite, 'check' | 'setup' | 'instrument'> & {
    readings: readonly (Readonly<Record<string, unknown>> & { readonly value?: string | number })[];
  };
  // The bench asks once on which sides the stylus stands, not with every reading.
  const stylus = readings.map(({ stylus: sides }) => sides).find((sides) => sides !== undefined);
  const told = { ...setup, ...(stylus !== undefined && { stylus }) };
  const bar = barRound(0, 0, { check, setup: told, instrument: instrument ?? null, plan: {}, conditions: {}, ...more });
  const read = readings.map(({ value = null, stylus: _sides, ...keys }, i): StoredReading => ({
    ...{ id: crypto.randomUUID(), roundId: bar.id, sequence: i + 1, keys: keys as StoredReading['keys'], value, set: 1 },
    ...{ supersedes: null, why: null, by: 'HB', at: bar.at },
  }));
  return { ...bar, readings: read, ...solveWhatStands(sheetOf(bar, read)) };
}

/** A test bed over the fake server, the lathe and its rounds on the desk. */
export async function openShop(
  rounds: StoredRound[] = [],
  {
    providers = [],
    prepare = () => undefined,
  }: { providers?: (Provider | EnvironmentProviders)[]; prepare?: (server: FakeServer) => void } = {},
): Promise<{ server: FakeServer; desk: MachineStore }> {
  localStorage.clear();
  const server = new FakeServer();
  server.rounds = structuredClone(rounds);
  prepare(server);
  TestBed.configureTestingModule({
    providers: [
      provideRouter([]),
      provideHttpClient(),
      { provide: HttpBackend, useValue: server },
      { provide: EVENTS, useValue: (address: string) => server.listen(address) },
      { provide: OUTBOX_NAME, useValue: `test-${crypto.randomUUID()}` },
      MachineStore,
      ...providers,
    ],
  });
  const settings = TestBed.inject(Settings);
  settings.system.set('mm');
  settings.fineness.set('coarse');
  settings.who.set('HB');
  const desk = TestBed.inject(MachineStore);
  await firstValueFrom(desk.load(LATHE));
  return { server, desk };
}

/** What the specs of one moment have on the page. */
const onPage = new Set<HTMLElement>();
const BLOCKS = 'p, li, h1, h2, h3, td, th, dt, dd, label, button, figcaption, caption, legend, svg text, [role=status], [role=alert]';

// Whatever a spec is about: no sentence on its screen is put together badly.
afterEach(() => {
  const wrong = [...onPage].flatMap((element) =>
    [...element.querySelectorAll(BLOCKS)]
      .filter((block) => !block.querySelector(BLOCKS))
      .flatMap((block) => textFaults((block.textContent ?? '').replace(/\s+/g, ' ').trim())),
  );
  onPage.clear();
  expect([...new Set(wrong)])
    .withContext('sentences on the screen')
    .toEqual([]);
});

/** A component on the page, with what a person can do to it. */
export class Shown<T> {
  constructor(readonly fixture: ComponentFixture<T>) {
    onPage.add(this.element);
  }

  get element(): HTMLElement {
    return this.fixture.nativeElement as HTMLElement;
  }

  /** Every word on it, in order, a space between the pieces. */
  text(): string {
    const walker = document.createTreeWalker(this.element, NodeFilter.SHOW_TEXT);
    const words: string[] = [];
    while (walker.nextNode()) words.push((walker.currentNode.textContent ?? '').replace(/\s+/g, ' ').trim());
    return words.filter(Boolean).join(' ');
  }

  all(selector: string): HTMLElement[] {
    return [...this.element.querySelectorAll<HTMLElement>(selector)];
  }

  /** The button, link or label with these words. */
  named(words: string | RegExp): HTMLElement {
    const found = this.all('button, a, label, summary, input[aria-label]').find((entry) => {
      const text = (entry.getAttribute('aria-label') ?? entry.textContent ?? '').replace(/\s+/g, ' ').trim();
      return typeof words === 'string' ? text === words : words.test(text);
    });
    if (!found) throw new Error(`nothing is called ${String(words)} in: ${this.text()}`);
    return found;
  }

  /** Choose one of a few. */
  async choose(words: string | RegExp): Promise<void> {
    this.named(words).querySelector('input')?.click();
    await this.fixture.whenStable();
  }

  /** Tick or untick what has these words beside it. */
  async tick(words: string | RegExp): Promise<void> {
    const id = this.named(words).getAttribute('for');
    this.element.querySelector<HTMLInputElement>(`#${id}`)?.click();
    await this.fixture.whenStable();
  }

  /** Open a list and take what has these words. */
  async pick(label: string, words: string | RegExp): Promise<void> {
    const box = this.all('[role=combobox]').find((entry) => entry.getAttribute('aria-label') === label);
    if (!box) throw new Error(`no list is called ${label}`);
    (box.closest('p-select') as HTMLElement).click();
    await until(() => document.querySelectorAll('[role=option]').length > 0);
    const option = [...document.querySelectorAll<HTMLElement>('[role=option]')].find((entry) => {
      const text = entry.textContent?.trim() ?? '';
      return typeof words === 'string' ? text === words : words.test(text);
    });
    if (!option) throw new Error(`${label} has no ${String(words)}`);
    option.click();
    await this.fixture.whenStable();
    await until(() => document.querySelectorAll('[role=option]').length === 0);
  }

  async press(words: string | RegExp): Promise<void> {
    this.named(words).click();
    await this.fixture.whenStable();
  }

  /** Escape, with the hand on the first thing that `selector` finds. */
  async escape(selector: string): Promise<void> {
    this.element.querySelector(selector)?.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true, cancelable: true }));
    await this.fixture.whenStable();
  }

  field(label: string): HTMLInputElement {
    const named = this.named(label);
    const field = named instanceof HTMLInputElement ? named : this.element.querySelector<HTMLInputElement>(`#${named.getAttribute('for')}`);
    if (!field) throw new Error(`no field for ${label}`);
    return field;
  }

  async type(label: string, text: string): Promise<void> {
    const field = this.field(label);
    field.dispatchEvent(new KeyboardEvent('keydown', { key: text.slice(-1) }));
    field.value = text;
    field.dispatchEvent(new Event('input'));
    field.dispatchEvent(new Event('blur'));
    field.dispatchEvent(new Event('focusout', { bubbles: true }));
    await this.fixture.whenStable();
  }
}

/** Draw a component with inputs and wait until it is still. */
export async function show<T>(component: Type<T>, inputs: Readonly<Record<string, unknown>> = {}): Promise<Shown<T>> {
  const fixture = TestBed.createComponent(component);
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  await fixture.whenStable();
  return new Shown(fixture);
}

/** A screen as it stands before the server has answered. */
export function showAtOnce<T>(component: Type<T>, inputs: Readonly<Record<string, unknown>> = {}): Shown<T> {
  const fixture = TestBed.createComponent(component);
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  fixture.detectChanges();
  return new Shown(fixture);
}

/** One turn of the event loop, also while the clock stands still. */
const turn = (): Promise<unknown> =>
  new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = resolve;
    port2.postMessage(null);
  });

/** So much time goes by on a clock that a spec has stopped, and everything that waits for it happens. */
export async function passTime(ms: number): Promise<void> {
  for (let gone = 0; gone < ms; gone += 5) {
    jasmine.clock().tick(5);
    await turn();
  }
}

/** Let time pass on an installed clock until something is so: what the browser itself is slow at takes no time of that clock. */
export async function passTimeUntil(so: () => boolean, ms = 10_000): Promise<void> {
  for (const end = performance.now() + ms; !so(); await passTime(5))
    if (performance.now() > end) throw new Error(`it never came to be: ${so.toString()}`);
}

/** Wait until something is so; the specs of what goes out by itself need it. */
export async function until(so: () => boolean | Promise<boolean>, ms = 10_000): Promise<void> {
  for (const end = Date.now() + ms; !(await so());) {
    if (Date.now() > end) throw new Error(`it never came to be: ${so.toString()}`);
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
}
