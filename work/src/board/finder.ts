import { CHECKS } from '@isometra/core';
import { MACHINE_KINDS, type Finder } from '@isometra/contract';
import { defaultPlan } from '../ladder/campaign.js';
import { folded } from '../notebook/folded.js';

export type FoundKind = 'machine' | 'page' | 'check' | 'round' | 'face' | 'kit' | 'sheet' | 'person' | 'part';

/** One thing that can be gone to. */
export interface Findable {
  readonly kind: FoundKind;
  /** What it is called. */
  readonly label: string;
  /** What it belongs to, or more about it. */
  readonly beside: string;
  /** The address of its screen. */
  readonly path: string;
  /** The machine it belongs to. */
  readonly machineId?: string;
}

/** A thing with what it is looked for by, ready to be searched. */
export interface Indexed extends Findable {
  /** Its name, folded. */
  readonly name: string;
  /** All it is found by, folded. */
  readonly all: string;
}

const PAGES: readonly (readonly [label: string, path: string])[] = [
  ['Machines', '/machines'],
  ['New machine', '/machines/new'],
  ['Logbook of the shop', '/logbook'],
  ['Things still to be done', '/logbook?what=to-do'],
  ['Kit', '/kit'],
  ['Parts needed', '/parts'],
  ['Limits', '/limits'],
  ['Planner: who does what on which day', '/planner'],
  ['What is due, and the calendar', '/due'],
  ['Files: reports, archives, tables and labels', '/files'],
  ['Work out a move: leaves, screws, strips', '/moves'],
  ['The shop: people, time zone, paper', '/shop'],
];

const MACHINE_PAGES: readonly (readonly [label: string, path: string])[] = [
  ['Survey', 'survey'],
  ['Logbook', 'logbook'],
  ['Machine card', 'card'],
  ['Plan: what is left to do', 'plan'],
  ['Tonight', 'tonight'],
  ['Worth it? Leave, adjust or rebuild', 'worth-it'],
  ['Order and limits', 'campaign'],
  ['Scraping', 'scraping'],
  ['Strip-down and assembly', 'parts'],
  ['Bearings and planned changes', 'to-come'],
];

const inArchive = (archived: boolean | undefined, beside: string): string =>
  [beside, archived && 'in the archive'].filter(Boolean).join(', ');

function ofMachine(machine: Finder['machines'][number], rounds: ReadonlyMap<string, Finder['rounds'][number]>): Findable[] {
  const { id, number, nickname, kind, archived } = machine;
  const path = `/machines/${id}`;
  const called = [number, nickname].filter(Boolean).join(' ');
  const label = MACHINE_KINDS.find(({ value }) => value === kind)?.label ?? kind;
  const own = (entry: Omit<Findable, 'machineId'>): Findable => ({ ...entry, machineId: id });
  return [
    own({ kind: 'machine', label: called, beside: inArchive(archived, label), path }),
    ...MACHINE_PAGES.map(([page, tail]) => own({ kind: 'page', label: page, beside: called, path: `${path}/${tail}` })),
    ...defaultPlan(kind).order.flatMap((check) => {
      const title = CHECKS.get(check)?.title;
      if (title === undefined) return [];
      const read = rounds.get(`${id} ${check}`);
      return [
        own({ kind: 'check', label: title, beside: `${called}, a new round`, path: `${path}/bench/${check}` }),
        ...(read
          ? [
              own({ kind: 'round', label: `${title}, round ${read.count}`, beside: called, path: `${path}/bench/${check}/${read.last}` }),
              own({ kind: 'check', label: `${title}: rounds so far`, beside: called, path: `${path}/rounds/${check}` }),
            ]
          : []),
      ];
    }),
  ];
}

/** Everything that can be gone to, ready to be searched: made once when it is opened. */
export function findablesOf(finder: Finder): readonly Indexed[] {
  const rounds = new Map(finder.rounds.map((row) => [`${row.machineId} ${row.check}`, row]));
  const machines = new Map(finder.machines.map((machine) => [machine.id, machine]));
  const all: Findable[] = [
    ...PAGES.map(([label, path]): Findable => ({ kind: 'page', label, beside: '', path })),
    ...finder.machines.flatMap((machine) => ofMachine(machine, rounds)),
    ...finder.faces.map(({ id, name, machineId }): Findable => {
      const machine = machines.get(machineId);
      const beside = [machine?.number, machine?.nickname].filter(Boolean).join(' ');
      return { kind: 'face', label: name, beside, path: `/machines/${machineId}/scraping/${id}`, machineId };
    }),
    ...finder.parts.map(({ id, name, number, machineId, stripDownId }): Findable => {
      const machine = machines.get(machineId);
      const path = `/machines/${machineId}/parts/${stripDownId}`;
      return {
        ...{ kind: 'part', machineId, label: number === null ? name : `${name}, part ${number}` },
        beside: [machine?.number, machine?.nickname, 'strip-down'].filter(Boolean).join(' '),
        path: number === null ? path : `${path}?part=${id}`,
      };
    }),
    ...finder.kit.map(({ id, name, archived }): Findable => ({
      kind: 'kit',
      label: name,
      beside: inArchive(archived, 'kit'),
      path: `/kit#${id}`,
    })),
    ...finder.sheets.map(({ id, name, archived }): Findable => ({
      ...{ kind: 'sheet', label: name, beside: inArchive(archived, 'limit sheet'), path: `/limits/${id}` },
    })),
    ...finder.people.map((by): Findable => ({
      kind: 'person',
      label: by,
      beside: 'what they wrote',
      path: `/logbook?by=${encodeURIComponent(by)}`,
    })),
  ];
  return all.map((entry) => {
    const name = folded(entry.label);
    return { ...entry, name, all: `${name} ${folded(entry.beside)}` };
  });
}

/** Where among others of the same fit each kind stands. */
const ORDER: Readonly<Record<FoundKind, number>> = {
  machine: 0,
  round: 1,
  check: 2,
  face: 3,
  page: 4,
  part: 5,
  kit: 6,
  sheet: 7,
  person: 8,
};

/** By the sign before it: letters and digits go on, everything else ends a word. Folded letters beyond ASCII are letters. */
function beginsWord(text: string, at: number): boolean {
  if (at === 0) return true;
  const before = text.charCodeAt(at - 1);
  return before < 128 && !(before >= 97 && before <= 122) && !(before >= 48 && before <= 57);
}

/** How well a thing fits one word: 0 is best; undefined where it does not. */
function fit({ name, all }: Indexed, word: string): number | undefined {
  const at = name.indexOf(word);
  if (at >= 0) return at === 0 ? 0 : beginsWord(name, at) ? 1 : 3;
  const beside = all.indexOf(word);
  if (beside < 0) return undefined;
  return beginsWord(all, beside) ? 2 : 4;
}

/** What is preferred where several fit. */
export interface Preferred {
  /** Addresses that were gone to lately, the last one first. */
  readonly lately: readonly string[];
  /** The machine that is open. */
  readonly machineId?: string;
}

/**
 * The things that fit every word that was typed, by any part of their names: what was gone to lately first, then what fits best. Without
 * a word, what was gone to lately.
 */
export function found(index: readonly Indexed[], typed: string, { lately, machineId }: Preferred, most = 12): readonly Findable[] {
  const words = folded(typed).split(/\s+/).filter(Boolean);
  const recent = new Map(lately.map((path, i) => [path, i]));
  if (words.length === 0) {
    const known = new Map(index.map((entry) => [entry.path, entry]));
    return lately.flatMap((path) => known.get(path) ?? []).slice(0, most);
  }
  const best: { readonly entry: Indexed; readonly rank: number }[] = [];
  for (const entry of index) {
    const fits = fitOf(entry, words);
    if (fits === undefined) continue;
    const when = recent.get(entry.path) ?? NEVER;
    // Lately counts most, then how well it fits; of equals the open machine's, then by kind, then the shorter name.
    const own = entry.machineId === machineId ? 0 : 20;
    const rank = when * 1000 + fits * 100 + own + ORDER[entry.kind] + entry.name.length / 1000;
    keepBest(best, { entry, rank }, most);
  }
  return best.map(({ entry }) => entry);
}

/** Later than anything that was gone to. */
const NEVER = 1000;

/** How well a thing fits all words; undefined where it lacks one of them. */
function fitOf(entry: Indexed, words: readonly string[]): number | undefined {
  let sum = 0;
  for (const word of words) {
    const one = fit(entry, word);
    if (one === undefined) return undefined;
    sum += one;
  }
  return sum;
}

/** Put one among the best, in order; of thousands that fit only so many are kept. */
function keepBest<One extends { readonly rank: number }>(best: One[], one: One, most: number): void {
  if (best.length === most && best[most - 1].rank <= one.rank) return;
  let at = best.length;
  while (at > 0 && best[at - 1].rank > one.rank) at--;
  best.splice(at, 0, one);
  if (best.length > most) best.pop();
}
