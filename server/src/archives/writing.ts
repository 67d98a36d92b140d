import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { Readable, type Writable } from 'node:stream';
import { Transaction, type Sequelize } from 'sequelize';
import { ZipFile } from 'yazl';
import { ARCHIVE_FORMAT, MANIFEST, type ArchivedFile, type ArchiveScope, type Manifest } from '@isometra/contract/archive';
import { fingerprintText, Mentions } from '@isometra/work';
import { PicturePartRow } from '../db/scrapingModels.js';
import { AttachmentRow } from '../db/shopModels.js';
import { PROGRAM } from '../program.js';
import { markSeen, readThings, sha256, stateHash, textOf, type ThingFile } from './files.js';
import { logFiles } from './logFiles.js';
import { belongingTo, type Asked, type Belonging } from './scopes.js';
import { KEEPING, photoPath, picturePath, type ThingKind } from './things.js';

/** Things that are read at once. */
const PIECE = 100;
/** Every entry has the same time: two archives of the same things differ in nothing but their manifest. */
const NO_TIME = new Date(2000, 0, 1);

/** A file of an archive that is being written: its text, or its bytes piece by piece. */
interface Written {
  readonly path: string;
  readonly text?: string;
  readonly bytes?: () => AsyncIterable<Buffer>;
  /** Its SHA-256 where it is known beforehand. */
  readonly sha256?: string;
  readonly thing?: ThingFile;
}

async function* pictureBytes(hash: string, transaction: Transaction): AsyncGenerator<Buffer> {
  for (let part = 0; ; part++) {
    const row = await PicturePartRow.findOne({ where: { hash, part }, transaction });
    if (!row) return;
    yield row.bytes;
  }
}

async function* photoBytes(id: string, transaction: Transaction): AsyncGenerator<Buffer> {
  const row = await AttachmentRow.findByPk(id, { attributes: ['bytes'], transaction });
  if (row) yield row.bytes;
}

/** A thing with the photographs that lie beside it. */
function* filesOf(thing: ThingFile, transaction: Transaction): Generator<Written> {
  yield { path: thing.path, text: textOf(thing.content), thing };
  if (thing.kind === 'pictures')
    yield {
      path: picturePath(thing.key, thing.content['type'] as string),
      bytes: () => pictureBytes(thing.key, transaction),
      sha256: thing.key,
    };
  if (thing.kind === 'kit')
    for (const photo of thing.content['photos'] as readonly { readonly id: string }[])
      yield { path: photoPath(thing.key, photo), bytes: () => photoBytes(photo.id, transaction) };
}

async function* thingFiles(kind: ThingKind, keys: readonly string[], transaction: Transaction): AsyncGenerator<Written> {
  for (let i = 0; i < keys.length; i += PIECE)
    for (const thing of await readThings(kind, keys.slice(i, i + PIECE), transaction)) yield* filesOf(thing, transaction);
}

/** Every file of an archive but its manifest, in an order that depends only on its content. */
async function* allFiles(sequelize: Sequelize, { things, logs, mentioned }: Belonging, transaction: Transaction): AsyncGenerator<Written> {
  const mentions = new Mentions(mentioned);
  for (const [kind, keys] of things)
    for await (const file of thingFiles(kind, keys, transaction)) {
      if (file.text !== undefined) mentions.read(file.text);
      yield file;
    }
  for (const log of logs)
    for await (const { path, content } of logFiles(sequelize, log, transaction)) {
      const text = textOf(content);
      mentions.read(text);
      yield { path, text };
    }
  for (let next = mentions.next(); next.length; next = mentions.next())
    for (const path of next) {
      const [kind, name] = path.split('/');
      const key = decodeURIComponent(name.replace(/\.json$/, ''));
      for await (const file of thingFiles(kind as ThingKind, [key], transaction)) {
        if (file.text !== undefined) mentions.read(file.text);
        yield file;
      }
    }
}

/** Work on what the shop holds at one moment, while it goes on. */
const atOneMoment = <T>(sequelize: Sequelize, work: (transaction: Transaction) => Promise<T>): Promise<T> =>
  sequelize.transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ, readOnly: true } as never, work);

/** Puts files into a zip one after another: one that is written slowly is not read ahead of. */
class Packing {
  private readonly zip = new ZipFile();
  readonly files: ArchivedFile[] = [];
  private readonly gone = new AbortController();

  constructor(private readonly output: Writable) {
    this.zip.outputStream.pipe(output);
    this.zip.on('error', (error: Error) => output.destroy(error));
    output.once('close', () => this.gone.abort());
  }

  /** Add a file and wait until it is written. */
  async add(path: string, pieces: AsyncIterable<Uint8Array> | Iterable<Uint8Array>, compress: boolean): Promise<ArchivedFile> {
    const { signal } = this.gone;
    if (signal.aborted) throw new Stopped();
    const hash = createHash('sha256');
    let size = 0;
    const counted = async function* (): AsyncGenerator<Uint8Array> {
      for await (const piece of pieces) {
        hash.update(piece);
        size += piece.length;
        yield piece;
      }
    };
    const stream = Readable.from(counted(), { objectMode: false });
    this.zip.addReadStream(stream, path, { mtime: NO_TIME, forceDosTimestamp: true, compress, mode: 0o100644 });
    try {
      await once(stream, 'end', { signal });
    } catch (error) {
      stream.destroy();
      throw signal.aborted ? new Stopped() : error;
    }
    const file = { path, size, sha256: hash.digest('hex') };
    this.files.push(file);
    return file;
  }

  async end(): Promise<void> {
    const finished = once(this.output, 'finish');
    this.zip.end();
    await finished;
  }
}

/** Whoever asked for it went away before it was written. */
export class Stopped extends Error {
  constructor() {
    super('the archive was not asked for any more');
  }
}

/** What was written. */
export interface Archive {
  readonly scope: ArchiveScope;
  readonly fingerprint: string;
}

/**
 * Write an archive into a stream, as the shop stands at this moment. Photographs pass through piece by piece.
 *
 * @throws Stopped when the stream is closed before the end.
 */
export async function writeArchive(sequelize: Sequelize, asked: Asked, output: Writable): Promise<Archive> {
  const marks: { readonly kind: string; readonly name: string; readonly hash: string }[] = [];
  const packing = new Packing(output);
  const archive = await atOneMoment(sequelize, async (transaction) => {
    const belonging = await belongingTo(sequelize, asked, transaction);
    const holds: Record<string, number> = {};
    for await (const { path, text, bytes, thing } of allFiles(sequelize, belonging, transaction)) {
      await packing.add(path, text === undefined ? bytes!() : [Buffer.from(text)], text !== undefined);
      if (!thing) continue;
      holds[thing.kind] = (holds[thing.kind] ?? 0) + 1;
      if (KEEPING[thing.kind].changes) marks.push({ kind: thing.kind, name: thing.key, hash: stateHash(thing.kind, thing.content) });
    }
    const { scope } = belonging;
    const files = [...packing.files];
    const manifest: Manifest = {
      format: ARCHIVE_FORMAT,
      program: { name: 'Isometra', version: PROGRAM },
      written: new Date().toISOString(),
      scope,
      holds,
      files,
    };
    await packing.add(MANIFEST, [Buffer.from(textOf(manifest))], true);
    return { scope, fingerprint: sha256(fingerprintText(files)) };
  });
  await packing.end();
  for (let i = 0; i < marks.length; i += 1000) await markSeen(marks.slice(i, i + 1000));
  return archive;
}

/** The fingerprint that an archive of this would have, without writing one. */
export function fingerprintOf(sequelize: Sequelize, asked: Asked): Promise<Archive> {
  return atOneMoment(sequelize, async (transaction) => {
    const belonging = await belongingTo(sequelize, asked, transaction);
    const files = [];
    for await (const { path, text, bytes, sha256: known } of allFiles(sequelize, belonging, transaction)) {
      if (known !== undefined) files.push({ path, sha256: known });
      else if (text !== undefined) files.push({ path, sha256: sha256(text) });
      else {
        const hash = createHash('sha256');
        for await (const piece of bytes!()) hash.update(piece);
        files.push({ path, sha256: hash.digest('hex') });
      }
    }
    return { scope: belonging.scope, fingerprint: sha256(fingerprintText(files)) };
  });
}
