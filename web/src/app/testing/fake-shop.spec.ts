import { type EnvironmentProviders, type Provider, type Type } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { type Observable, of, throwError } from 'rxjs';
import {
  freshSurvey,
  sheetOf,
  trySolve,
  type KitItem,
  type Machine,
  type MoveWrite,
  type Round,
  type RoundWrite,
  type StoredLimitSheet,
  type StoredReading,
  type Survey,
  type SurveyWrite,
} from '@isometra/contract';
import { STARTING_SHEETS, startingSheet, type LimitSheet } from '@isometra/core';
import { Api, ApiFailure } from '../data/api';
import { Settings } from '../data/settings';
import { Desk } from '../tailstock/desk';

type Write = { readonly method: string; readonly path: string; readonly body: unknown };

/** A server in memory: what the services would be told, and what they said to it. */
export class FakeApi {
  readonly sent: Write[] = [];
  machines: Machine[] = [lathe()];
  kit: KitItem[] = [dial(), drawer()];
  rounds: Round[] = [];
  surveys: Survey[] = [survey()];
  limits: StoredLimitSheet[] = [];
  versions: StoredLimitSheet[] = [];
  /** The next write is refused with this. */
  refuse: ApiFailure | undefined;

  get<T>(path: string): Observable<T> {
    const found = this.find(path);
    return found === undefined
      ? throwError(() => new ApiFailure(404, [{ path: 'id', message: 'no such thing', example: '' }]))
      : of(found as T);
  }

  send<T>(method: 'POST' | 'PUT', path: string, body: unknown): Observable<T> {
    const refusal = this.refuse;
    this.refuse = undefined;
    if (refusal) return throwError(() => refusal);
    this.sent.push({ method, path, body });
    if (path === '/demo') this.machines = [lathe(), { ...lathe(), id: 'other', card: { ...lathe().card, number: 'L-15' } }];
    if (path === '/demo') return of(this.machines as T);
    if (path.startsWith('/surveys')) body = { ...(body as object), judge: judgeOf(body) };
    // A round comes back whole, as the server gives it.
    if (path.startsWith('/rounds/') && method === 'PUT') body = { ...this.rounds.find(({ id }) => path.endsWith(id)), ...(body as object) };
    return of({ ...(body as object), version: ((body as { version?: number }).version ?? 0) + 1 } as T);
  }

  private find(path: string): unknown {
    if (path === '/machines') return this.machines;
    if (path === '/kit') return this.kit;
    if (path === '/limits') return this.limits;
    if (/^\/limits\/[^/]+\/versions$/.test(path)) return this.versions;
    if (/^\/machines\/[^/]+\/surveys$/.test(path)) return this.surveys;
    const rounds = /^\/machines\/([^/]+)\/rounds/.exec(path);
    if (rounds) return this.rounds;
    const machine = /^\/machines\/([^/]+)$/.exec(path);
    if (machine) return this.machines.find((entry) => entry.id === machine[1]);
    const round = /^\/rounds\/([^/]+)$/.exec(path);
    return round ? this.rounds.find((entry) => entry.id === round[1]) : undefined;
  }
}

/** The sheet that a survey judges by, as the server writes it out. */
function judgeOf(body: unknown): LimitSheet {
  const { sheet } = (body as SurveyWrite).limits;
  return startingSheet(STARTING_SHEETS.find((entry) => entry.id === sheet)?.id ?? 'general');
}

export const lathe = (): Machine => ({
  id: 'lathe',
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
export const survey = (): Survey => freshSurvey({ id: 'lathe', kind: 'engine-lathe' }, 'survey', 'As found', '2026-01-01T00:00:00.000Z');

export const dial = (): KitItem => ({
  id: 'dial',
  kind: 'instrument',
  name: 'Lever dial',
  data: { kind: 'lever', graduation: '0.002 mm' },
  care: {},
  photos: [],
  version: 1,
});
export const drawer = (): KitItem => ({
  id: 'drawer',
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

/** A round of a bar between centres that found the tailstock at these offsets, µm. */
export function barRound(offsetH: number, offsetV: number, more: Partial<RoundWrite> & { moves?: Partial<MoveWrite>[] } = {}): Round {
  const { moves = [], ...own } = more;
  serial += 1;
  const write: RoundWrite = {
    id: `round-${serial}`,
    machineId: 'lathe',
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
    id: `${write.id}-${sequence}`,
    roundId: write.id,
    sequence,
    keys: { plane, at: place },
    value: `${value} um`,
    set: 1,
    supersedes: null,
    why: null,
    by: 'HB',
    at: write.at,
  });
  const readings = [
    at(20, 'h', 0, 1),
    at(380, 'h', offsetH * 0.9, 2),
    at(20, 'v', 0, 3),
    at(380, 'v', offsetV * 0.9, 4),
    at(20, 'h', 0, 5),
  ];
  const { finding } = trySolve(sheetOf(write, readings, { card: lathe().card, stock: drawer().data['stock'] as unknown[] }));
  const done = moves.map((move, i): MoveWrite => ({
    id: `${write.id}-move-${i}`,
    roundId: write.id,
    kind: 'adjuster',
    quantity: 'offsetHorizontal',
    amount: -offsetH,
    unit: 'um',
    direction: 'away from the operator',
    plan: {},
    ticks: [],
    done: true,
    shift: null,
    by: 'HB',
    at: new Date(Date.parse(write.at) + 3_600_000).toISOString(),
    version: 1,
    ...move,
  }));
  return { ...write, surveyId: 'survey', number: serial, readings, moves: done, finding, coreVersion: '0' };
}

/** A test bed with the fake server; `desk` loads the machine and its rounds first. */
export function openShop(rounds: Round[] = [], providers: (Provider | EnvironmentProviders)[] = []): { api: FakeApi; desk: Desk } {
  localStorage.clear();
  const api = new FakeApi();
  api.rounds = rounds;
  TestBed.configureTestingModule({ providers: [provideRouter([]), { provide: Api, useValue: api }, Desk, ...providers] });
  const settings = TestBed.inject(Settings);
  settings.system.set('mm');
  settings.fineness.set('coarse');
  settings.who.set('HB');
  const desk = TestBed.inject(Desk);
  desk.load('lathe').subscribe();
  return { api, desk };
}

/** A component on the page, with what a person can do to it. */
export class Shown<T> {
  constructor(readonly fixture: ComponentFixture<T>) {}

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
    const found = this.all('button, a, label, summary').find((entry) => {
      const text = (entry.getAttribute('aria-label') ?? entry.textContent ?? '').replace(/\s+/g, ' ').trim();
      return typeof words === 'string' ? text === words : words.test(text);
    });
    if (!found) throw new Error(`nothing is called ${String(words)} in: ${this.text()}`);
    return found;
  }

  async press(words: string | RegExp): Promise<void> {
    this.named(words).click();
    await this.fixture.whenStable();
  }

  async type(label: string, text: string): Promise<void> {
    const id = this.named(label).getAttribute('for');
    const field = this.element.querySelector<HTMLInputElement>(`#${id}`);
    if (!field) throw new Error(`no field for ${label}`);
    field.value = text;
    field.dispatchEvent(new Event('input'));
    field.dispatchEvent(new Event('blur'));
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

/** Wait until something is so; the specs of what goes out by itself need it. */
export async function until(so: () => boolean): Promise<void> {
  for (let i = 0; i < 100 && !so(); i++) await new Promise((resolve) => setTimeout(resolve, 10));
}
