import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import type { ArchiveDifference, ArchiveResult, Conflicts } from '@isometra/contract/archive';
import type { LogKind, LogThing } from '@isometra/contract';
import { FaultError } from '@isometra/core';
import { ImportRow } from '../db/archiveModels.js';
import { LogRow, MachineRow } from '../db/shopModels.js';
import { CheckRow } from '../db/surveyModels.js';
import { writeLog } from '../services/log.js';
import { headOf, newestOf, readThings, stateHash, versionsOf, type Content } from './files.js';
import { growthOf } from './growing.js';
import { LogMerge } from './logMerge.js';
import { branchedStates, missingStates, standingOf } from './placing.js';
import { kindOf, nameOf, type OpenArchive } from './reading.js';
import { calledOf, rowsSideBySide, sideBySide } from './sideBySide.js';
import { KEEPING, THING_KINDS, type List, type ThingKind } from './things.js';
import { verifyArchive, type Watched } from './verifying.js';
import { writePiece, type Writes } from './writes.js';
import { Stopped } from './writing.js';

/** Things that are placed at once. */
const PIECE = 100;

/** How an archive is taken in. */
export interface How extends Watched {
  /** Whose state stands where both changed something, unless it is chosen for that thing. */
  readonly conflicts: Conflicts;
  /** Chosen thing by thing, by its path in the archive. */
  readonly choices?: Readonly<Record<string, 'ours' | 'theirs'>>;
  readonly by: string;
  /** Whether it is only looked at: nothing is written. */
  readonly look?: boolean;
}

/** Not all questions were answered: nothing is written. */
class Unanswered extends Error {}

/** One archive on its way in. */
class Taking {
  private readonly counts = {
    added: {} as Record<string, number>,
    newer: {} as Record<string, number>,
    known: {} as Record<string, number>,
  };
  private readonly grown: Record<string, number> = {};
  private readonly differences: ArchiveDifference[] = [];
  private readonly renamed: { from: string; to: string }[] = [];
  private readonly chosen: { readonly kind: ThingKind; readonly content: Content }[] = [];
  private unanswered = false;
  /** Notes that were left out: what supersedes them is too. */
  private readonly leftOut = new Set<string>();
  /** Whose numbers are taken. */
  private readonly numbers = new Map<string, string>();
  /** The rungs of surveys, by survey and check. */
  private readonly rungs = new Map<string, string>();

  constructor(
    private readonly archive: OpenArchive,
    private readonly how: How,
    private readonly transaction: Transaction,
  ) {}

  get result(): ArchiveResult {
    const { files: _files, ...manifest } = this.archive.manifest;
    const { differences, renamed, grown } = this;
    return { manifest, ...this.counts, grown, differences, renamed, taken: !this.how.look && !this.unanswered };
  }

  get open(): boolean {
    return this.unanswered;
  }

  private count(in_: keyof typeof this.counts, kind: string): void {
    this.counts[in_][kind] = (this.counts[in_][kind] ?? 0) + 1;
  }

  private choiceFor(path: string): 'ours' | 'theirs' | undefined {
    const { choices, conflicts } = this.how;
    return choices?.[path] ?? (conflicts === 'ask' ? undefined : conflicts);
  }

  /** Remember a difference; whose state stands, where that was said. */
  private settle(difference: ArchiveDifference): 'ours' | 'theirs' | undefined {
    const choice = this.choiceFor(difference.path);
    this.differences.push(difference);
    if (choice === undefined) this.unanswered = true;
    return choice;
  }

  async all(): Promise<void> {
    for (const { id, number } of await MachineRow.findAll({ attributes: ['id', 'number'], transaction: this.transaction }))
      this.numbers.set(number, id);
    const [newest] = await LogRow.findAll({ order: [['id', 'DESC']], limit: 1, attributes: ['id'], transaction: this.transaction });
    const paths = this.archive.paths();
    let done = 0;
    for (const kind of THING_KINDS) {
      const own = await this.inOrder(
        kind,
        paths.filter((path) => kindOf(path) === kind),
      );
      for (let i = 0; i < own.length; i += PIECE) {
        const piece = own.slice(i, i + PIECE);
        await this.piece(kind, piece);
        done += piece.length;
        this.step(done, paths.length);
      }
    }
    const merge = new LogMerge(Number(newest?.id ?? 0));
    for (const path of paths.filter((one) => kindOf(one) === 'log').sort()) {
      await this.logPiece(path, merge);
      this.step(++done, paths.length);
    }
    if (!this.how.look && !this.unanswered) await this.writeChosen();
  }

  private step(done: number, of: number): void {
    if (this.how.signal?.aborted) throw new Stopped();
    this.how.tell?.(this.how.look ? 'comparing' : 'writing', done, of);
  }

  /** Notes supersede one another: the older one comes first. */
  private async inOrder(kind: ThingKind, paths: readonly string[]): Promise<readonly string[]> {
    if (kind !== 'remarks') return [...paths].sort();
    const all = [];
    for (const path of paths) all.push({ path, content: (await this.archive.content(path)).content });
    const byId = new Map(all.map((one) => [String(one.content['id']), one]));
    const depth = (content: Content): number => {
      const before = byId.get(String(content['supersedes']));
      return before ? depth(before.content) + 1 : 0;
    };
    const sorted = all.map((one) => ({ ...one, depth: depth(one.content) }));
    return sorted
      .sort((a, b) => a.depth - b.depth || String(a.content['at']).localeCompare(String(b.content['at'])) || (a.path < b.path ? -1 : 1))
      .map(({ path }) => path);
  }

  private async piece(kind: ThingKind, paths: readonly string[]): Promise<void> {
    const theirs = [];
    for (const path of paths) {
      const { content } = await this.archive.content(path);
      theirs.push({ path, key: nameOf(kind, content), content });
    }
    const here = await readThings(
      kind,
      theirs.map(({ key }) => key),
      this.transaction,
      { lock: !this.how.look && KEEPING[kind].changes },
    );
    const ours = new Map(here.map((thing) => [thing.key, thing.content]));
    const writes: Writes = { heads: [], changed: [], lists: new Map(), states: [], marks: [] };
    for (const { path, key, content } of theirs) {
      const known = ours.get(key);
      if (known) await this.merge({ kind, path, key }, known, content, writes);
      else await this.add({ kind, path, key }, content, writes);
    }
    if (!this.how.look && !this.unanswered) await writePiece(kind, writes, { archive: this.archive, transaction: this.transaction });
  }

  /** A row of the table, as its file has it. */
  private async rowOf(kind: ThingKind, content: Content): Promise<Content> {
    const head = headOf(kind, content);
    if (kind === 'machines') {
      const card = head['card'] as Content;
      return { ...head, number: String(card['number']).trim(), kind: String(card['kind']) };
    }
    if (kind === 'rounds') return { ...head, checkId: await this.rungOf(String(content['surveyId']), String(content['kind'])) };
    return head;
  }

  private async rungOf(surveyId: string, kind: string): Promise<string> {
    const key = `${surveyId} ${kind}`;
    const known = this.rungs.get(key);
    if (known) return known;
    const row =
      this.how.look || this.unanswered ? null : await CheckRow.findOne({ where: { surveyId, kind }, transaction: this.transaction });
    const id = row?.id ?? crypto.randomUUID();
    if (!row && !this.how.look && !this.unanswered) await CheckRow.create({ id, surveyId, kind }, { transaction: this.transaction });
    this.rungs.set(key, id);
    return id;
  }

  /** A machine whose number is taken comes in under the next one that is free. */
  private numbered(kind: ThingKind, key: string, content: Content): Content {
    if (kind !== 'machines') return content;
    const card = content['card'] as Content;
    const number = String(card['number']).trim();
    let free = number;
    for (let k = 2; this.numbers.has(free) && this.numbers.get(free) !== key; k++)
      free = `${number.slice(0, 24 - ` (${k})`.length)} (${k})`;
    this.numbers.set(free, key);
    if (free === number) return content;
    this.renamed.push({ from: number, to: free });
    this.chosen.push({ kind, content: { ...content, card: { ...card, number: free } } });
    return { ...content, card: { ...card, number: free } };
  }

  private async add({ kind, path, key }: Place, content: Content, writes: Writes): Promise<void> {
    const named = this.numbered(kind, key, content);
    const clash = kind === 'remarks' && typeof content['supersedes'] === 'string' ? await this.remarkClash(path, content) : content;
    if (!clash) return void this.leftOut.add(key);
    this.count('added', kind);
    writes.heads.push(await this.rowOf(kind, kind === 'remarks' ? clash : named));
    for (const state of (content['earlier'] ?? []) as readonly Content[]) writes.states.push(this.stateRow(kind, key, state));
    this.mark(kind, key, content, writes);
    for (const list of KEEPING[kind].lists) this.addRows(list, key, (content[list.field] ?? []) as readonly Content[], writes);
  }

  /** A note that supersedes what was superseded here already: it is left out, or comes after what stands here. Undefined where it is left out. */
  private async remarkClash(path: string, content: Content): Promise<Content | undefined> {
    if (this.leftOut.has(String(content['supersedes']))) return undefined;
    const { model } = KEEPING.remarks;
    const after = (id: unknown) => model.findOne({ where: { supersedes: String(id) }, transaction: this.transaction });
    let tip = await after(content['supersedes']);
    if (!tip) return content;
    const ours = { text: tip.get('text') };
    const fields = [{ field: 'text', ours: String(ours.text), theirs: String(content['text']) }];
    const choice = this.settle({ path, called: calledOf('remarks', content), fields });
    if (choice !== 'theirs') return undefined;
    for (let next = await after(tip.get('id')); next; next = await after(next.get('id'))) tip = next;
    return { ...content, supersedes: tip.get('id') };
  }

  private mark(kind: ThingKind, key: string, content: Content, writes: Writes): void {
    if (!KEEPING[kind].changes) return;
    for (const hash of new Set([stateHash(kind, content), ...((content['seen'] ?? []) as readonly string[])]))
      writes.marks.push({ kind, name: key, hash });
  }

  private stateRow(kind: ThingKind, key: string, state: Content): Content {
    const { what, idOf } = KEEPING[kind].kept as NonNullable<(typeof KEEPING)[ThingKind]['kept']>;
    return { what, thingId: idOf(key), ...state };
  }

  private addRows(list: List, key: string, rows: readonly Content[], writes: Writes): void {
    const known = writes.lists.get(list) ?? [];
    for (const row of rows) known.push({ ...row, [list.foreign]: key });
    writes.lists.set(list, known);
  }

  private async merge({ kind, path, key }: Place, ours: Content, theirs: Content, writes: Writes): Promise<void> {
    const keeping = KEEPING[kind];
    const standing = keeping.changes ? standingOf(kind, ours, theirs) : 'same';
    if (keeping.changes) this.mark(kind, key, theirs, writes);
    if (standing === 'both changed' && kind === 'limits') return this.sheet({ kind, path, key }, ours, theirs, writes);
    if (standing === 'both changed') await this.both({ kind, path, key }, ours, theirs, writes);
    else {
      this.count(standing === 'newer there' ? 'newer' : 'known', kind);
      if (standing === 'newer there') writes.changed.push({ key, values: await this.rowOf(kind, this.numbered(kind, key, theirs)) });
      if (keeping.kept) for (const state of missingStates(ours, theirs)) writes.states.push(this.stateRow(kind, key, state));
    }
    for (const list of keeping.lists) {
      const [own, other] = [ours, theirs].map((content) => (content[list.field] ?? []) as readonly Content[]);
      const { rows, clashes } = growthOf(list, own, other, this.choiceFor(path));
      if (clashes.length) this.settle(rowsSideBySide(kind, { path, field: list.field, theirs: clashes, ours: own }, ours));
      if (rows.length) this.grown[list.field] = (this.grown[list.field] ?? 0) + rows.length;
      this.addRows(list, key, rows, writes);
    }
  }

  private async both({ kind, path, key }: Place, ours: Content, theirs: Content, writes: Writes): Promise<void> {
    const choice = this.settle(sideBySide(kind, path, ours, theirs));
    this.count(choice === 'theirs' ? 'newer' : 'known', kind);
    if (choice !== 'theirs') return;
    writes.marks.push({ kind, name: key, hash: stateHash(kind, ours) });
    const { states, version } = branchedStates(ours, theirs);
    const taken = 'version' in theirs ? { ...theirs, version } : theirs;
    writes.changed.push({ key, values: await this.rowOf(kind, this.numbered(kind, key, taken)) });
    if (KEEPING[kind].kept) for (const state of states) writes.states.push(this.stateRow(kind, key, state));
    this.chosen.push({ kind, content: taken });
  }

  /**
   * A limit sheet that both changed. Surveys were judged by each of its versions: all of them are kept, numbered one after another, and
   * the one that was chosen comes last.
   */
  private sheet({ kind, path, key }: Place, ours: Content, theirs: Content, writes: Writes): void {
    const choice = this.settle(sideBySide(kind, path, ours, theirs));
    this.count(choice === 'theirs' ? 'newer' : 'known', kind);
    if (choice === undefined) return;
    const [list] = KEEPING.limits.lists;
    const { rows } = growthOf(list, versionsOf(ours), versionsOf(theirs), undefined);
    const last = Math.max(...[...versionsOf(ours), ...rows].map(({ version }) => Number(version)));
    const again = { ...newestOf(ours), id: crypto.randomUUID(), version: last + 1, by: this.how.by, at: new Date().toISOString() };
    const come = choice === 'ours' && rows.length ? [...rows, again] : rows;
    this.grown['versions'] = (this.grown['versions'] ?? 0) + come.length;
    this.addRows(list, key, come, writes);
    const taken = { ...(choice === 'ours' ? ours : theirs), version: choice === 'ours' && rows.length ? last + 1 : last };
    writes.marks.push({ kind, name: key, hash: stateHash(kind, ours) });
    writes.changed.push({ key, values: headOf(kind, taken) });
    if (choice === 'theirs') this.chosen.push({ kind, content: taken });
  }

  private async logPiece(path: string, merge: LogMerge): Promise<void> {
    const { content } = await this.archive.content(path);
    const machineId = content['machineId'] as string | null;
    const entries = await merge.missing(machineId, content['entries'] as readonly Content[], this.transaction);
    if (entries.length) this.grown['log'] = (this.grown['log'] ?? 0) + entries.length;
    if (!this.how.look && !this.unanswered && entries.length)
      await LogRow.bulkCreate(entries.map((entry) => ({ ...entry, machineId })) as never[], { transaction: this.transaction });
  }

  /** What was chosen is told in the logbook: it changed what people here had written. */
  private async writeChosen(): Promise<void> {
    for (const { kind, content } of this.chosen) {
      const about = ABOUT[kind] ?? { what: 'shop' as const };
      const machineId = (content['machineId'] ?? (kind === 'machines' ? content['id'] : null)) as string | null;
      const text = `${calledOf(kind, content)}: taken as it stands in an archive of ${this.archive.manifest.written.slice(0, 10)}`;
      const thingId = about.thing && String(content['id'] ?? machineId);
      await writeLog({ machineId, by: this.how.by, text, ...about, ...(thingId && { thingId }) }, this.transaction);
    }
  }
}

const ABOUT: Readonly<Partial<Record<ThingKind, { readonly what: LogKind; readonly thing?: LogThing }>>> = {
  machines: { what: 'machine', thing: 'machine' },
  kit: { what: 'kit', thing: 'kit' },
  limits: { what: 'limits', thing: 'limits' },
  surveys: { what: 'survey', thing: 'survey' },
  rounds: { what: 'round', thing: 'round' },
  moves: { what: 'move', thing: 'move' },
  surfaces: { what: 'scraping', thing: 'face' },
  parts: { what: 'strip-down', thing: 'part' },
  'strip-downs': { what: 'strip-down', thing: 'strip-down' },
  plans: { what: 'plan' },
};

interface Place {
  readonly kind: ThingKind;
  readonly path: string;
  readonly key: string;
}

/** Archives come in one after another: two that hold the same must not both find it missing. */
function oneAtATime(sequelize: Sequelize, { look }: How, work: (transaction: Transaction) => Promise<void>): Promise<void> {
  if (look) return sequelize.transaction(work);
  // The lock is held by a connection of its own: it is let go after what came in is there for the next one.
  return sequelize.transaction(async (holding) => {
    const ask = { transaction: holding, type: QueryTypes.SELECT } as const;
    const [{ free }] = await sequelize.query<{ free: number | null }>(`SELECT GET_LOCK('isometra-import', 600) AS free`, ask);
    if (Number(free) !== 1)
      throw new FaultError([{ path: '', message: 'another archive is being imported: wait until it is done', example: 'once more' }]);
    try {
      await sequelize.transaction(work);
    } finally {
      await sequelize.query(`SELECT RELEASE_LOCK('isometra-import')`, ask);
    }
  });
}

/**
 * Take an archive into the shop: what is not here comes in, what is newer there replaces what is here (its earlier states are kept), lists
 * grow by what they lack, and where both changed something it is settled as was chosen. All of it, or nothing.
 *
 * @throws FaultError for what cannot be taken in, Stopped when it was stopped: the shop is as it was.
 * @returns what was done; with `look`, or where something was not settled, what would be.
 */
export async function takeArchive(sequelize: Sequelize, archive: OpenArchive, how: How): Promise<ArchiveResult> {
  const references = await verifyArchive(archive, how);
  let result: ArchiveResult | undefined;
  try {
    await oneAtATime(sequelize, how, async (transaction) => {
      await references.refuseMissing(transaction);
      const taking = new Taking(archive, how, transaction);
      await taking.all();
      result = taking.result;
      if (taking.open) throw new Unanswered();
      if (how.look) return;
      const { scope, written } = archive.manifest;
      const row = { fingerprint: archive.fingerprint, scope, written: new Date(written), by: how.by, at: new Date() };
      await ImportRow.create(row, { transaction });
    });
  } catch (error) {
    if (!(error instanceof Unanswered)) throw error;
  }
  return result as ArchiveResult;
}
