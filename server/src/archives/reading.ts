import type { Readable } from 'node:stream';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import type * as z from 'zod';
import { ARCHIVE_FILES, ARCHIVE_FORMAT, MANIFEST, manifestSchema, type ArchiveKind, type Manifest } from '@isometra/contract/archive';
import { FaultError, type Fault } from '@isometra/core';
import { fingerprintText } from '@isometra/work';
import { unsound } from '../api/soundBody.js';
import { sha256, type Content } from './files.js';
import { picturePath } from './things.js';

/** What an archive may hold: more than any shop has, less than would fill a disk. */
export const MOST = {
  files: 300_000,
  /** Bytes of one JSON file, unpacked. */
  text: 64_000_000,
  /** Bytes of one photograph. */
  picture: 32_000_000,
  /** Bytes of all of it, unpacked. */
  all: 16_000_000_000,
} as const;

const ID = '[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}';
/** Where a file may lie, and of which kind it is then. */
const PLACES: readonly (readonly [RegExp, ArchiveKind | 'photo'])[] = [
  [/^shop\/[a-z][a-z-]{0,39}\.json$/, 'shop'],
  [/^people\/[^/\\]{1,100}\.json$/, 'people'],
  [new RegExp(`^log/(?:${ID}|shop)-\\d{4,6}\\.json$`), 'log'],
  [/^pictures\/[0-9a-f]{64}\.json$/, 'pictures'],
  [/^pictures\/[0-9a-f]{64}\.(?:jpeg|png)$/, 'photo'],
  [new RegExp(`^kit/${ID}/${ID}\\.(?:jpeg|png)$`), 'photo'],
  [new RegExp(`^(?:kit|limits|machines|plans|surveys|rounds|moves|surfaces|strip-downs|parts|remarks)/${ID}\\.json$`), 'kit'],
];

/** Of which kind a file is by where it lies; undefined where nothing of an archive lies. */
export function kindOf(path: string): ArchiveKind | 'photo' | undefined {
  const kind = PLACES.find(([place]) => place.test(path))?.[1];
  return kind === 'kit' ? (path.split('/')[0] as ArchiveKind) : kind;
}

const refuse = (path: string, message: string, example: string): never => {
  throw new FaultError([{ path, message, example }]);
};

const WHOLE = 'a file that isometra export wrote, as it was written';

/** An archive that is open: its table of contents was read, its files are read as they are asked for. */
export class OpenArchive {
  private constructor(
    private readonly zip: ZipFile,
    private readonly entries: ReadonlyMap<string, Entry>,
    readonly manifest: Manifest,
  ) {}

  /**
   * Open an archive and read its table of contents. Nothing is unpacked.
   *
   * @throws FaultError for what is no archive, of another version, torn, or holds what no archive holds.
   */
  static async open(path: string): Promise<OpenArchive> {
    const zip = await opened(path);
    try {
      const entries = await entriesOf(zip);
      const manifest = await manifestOf(zip, entries);
      const archive = new OpenArchive(zip, entries, manifest);
      archive.refuseOthers();
      return archive;
    } catch (error) {
      zip.close();
      throw error;
    }
  }

  close(): void {
    this.zip.close();
  }

  /** What is in it and stands in its table of contents must be the same. */
  private refuseOthers(): void {
    const told = new Map(this.manifest.files.map((file) => [file.path, file]));
    if (told.size !== this.manifest.files.length) refuse(MANIFEST, 'names a file twice', WHOLE);
    for (const [path, { uncompressedSize }] of this.entries) {
      if (path === MANIFEST) continue;
      const known = told.get(path);
      if (!known) return refuse(path, 'is in the zip and does not stand in its manifest', WHOLE);
      if (known.size !== uncompressedSize) return refuse(path, `has ${uncompressedSize} bytes and should have ${known.size}`, WHOLE);
    }
    for (const path of told.keys()) {
      if (!this.entries.has(path)) refuse(path, 'stands in the manifest and is not in the zip', WHOLE);
      if (kindOf(path) === undefined) refuse(path, 'is not a place where something of an archive lies', 'rounds/<id>.json');
    }
  }

  /** SHA-256 of what it holds: what a report made from the same says too. It is that of the manifest until the files were held against it. */
  get fingerprint(): string {
    return sha256(fingerprintText(this.manifest.files));
  }

  has(path: string): boolean {
    return this.entries.has(path);
  }

  paths(): string[] {
    return this.manifest.files.map(({ path }) => path);
  }

  /** Bytes of a file, piece by piece. */
  async stream(path: string): Promise<Readable> {
    const entry = this.entries.get(path);
    if (!entry) return refuse(path, 'is not in the archive', WHOLE);
    return streamOf(this.zip, entry);
  }

  /** A file as a whole. @throws FaultError where it is longer than what lies there may be. */
  async bytes(path: string): Promise<Buffer> {
    const most = kindOf(path) === 'photo' ? MOST.picture : MOST.text;
    return bytesOf(path, await this.stream(path), most);
  }

  /** A JSON file as text and as it reads. @throws FaultError that names the file and the field. */
  async content(path: string): Promise<{ readonly text: string; readonly content: Content }> {
    const text = (await this.bytes(path)).toString('utf8');
    return { text, content: contentOf(path, text) };
  }

  /** Hold every file against the SHA-256 that stands for it, and every JSON file against what may stand in it. */
  async *verified(): AsyncGenerator<{ readonly path: string; readonly content?: Content }> {
    for (const { path, sha256: told } of this.manifest.files) {
      const bytes = await this.bytes(path);
      if (sha256(bytes) !== told) refuse(path, 'is not what was put in: its SHA-256 is another', WHOLE);
      if (kindOf(path) === 'photo') {
        refuseOtherPicture(path, told, bytes);
        yield { path };
      } else yield { path, content: contentOf(path, bytes.toString('utf8')) };
    }
  }
}

/** A photograph is named by its SHA-256, and is of the kind that its name says. */
function refuseOtherPicture(path: string, hash: string, bytes: Buffer): void {
  if (path.startsWith('pictures/') && !path.startsWith(picturePath(hash, '')))
    refuse(path, 'is another photograph than its name says', picturePath(hash, 'jpeg'));
  if (!isPicture(path, bytes)) refuse(path, 'is no photograph of the kind that its name says', 'a JPEG or PNG photograph');
}

const SIGNS = { jpeg: [0xff, 0xd8, 0xff], png: [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a] } as const;

const isPicture = (path: string, bytes: Buffer): boolean =>
  SIGNS[path.endsWith('.png') ? 'png' : 'jpeg'].every((sign, i) => bytes[i] === sign);

/** Take a JSON file apart. Its name must be what it says of itself. */
function contentOf(path: string, text: string): Content {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (error) {
    return refuse(path, `is not JSON: ${(error as Error).message}`, '{ … }');
  }
  const faults = unsound(raw);
  if (faults.length) throw new FaultError(faults.map((fault) => ({ ...fault, path: `${path}: ${fault.path}` })));
  const kind = kindOf(path) as ArchiveKind;
  const parsed = ARCHIVE_FILES[kind].safeParse(raw);
  if (!parsed.success) throw new FaultError(faultsIn(path, parsed.error));
  const content = parsed.data as Content;
  if (kind !== 'log' && !path.endsWith(`/${encodeURIComponent(nameOf(kind, content))}.json`))
    refuse(path, 'holds something else than its name says', `${kind}/${nameOf(kind, content)}.json`);
  return content;
}

const NAMES: Readonly<Partial<Record<ArchiveKind, string>>> = { shop: 'name', people: 'initials', pictures: 'hash', plans: 'machineId' };

/** Under which name a thing lies. */
export const nameOf = (kind: ArchiveKind, content: Content): string => String(content[NAMES[kind] ?? 'id']);

const faultsIn = (path: string, error: z.ZodError): Fault[] =>
  error.issues.slice(0, 20).map(({ path: keys, message }) => ({
    path: `${path}: ${keys.join('.')}`,
    message,
    example: 'docs/formats/schemas says what may stand there',
  }));

function opened(path: string): Promise<ZipFile> {
  const options = { lazyEntries: true, autoClose: false, validateEntrySizes: true, strictFileNames: true, decodeStrings: true } as const;
  return new Promise((resolve, reject) => {
    yauzl.open(path, options, (error, zip) => {
      if (zip) resolve(zip);
      else reject(new FaultError([notAnArchive(error)]));
    });
  });
}

const notAnArchive = (error: Error | null): Fault => ({
  path: '',
  message: `is not a zip that can be read: ${(error?.message ?? 'it is empty').replace(/\.$/, '')}. Either it is something else, or its end is missing`,
  example: WHOLE,
});

function entriesOf(zip: ZipFile): Promise<ReadonlyMap<string, Entry>> {
  const entries = new Map<string, Entry>();
  let all = 0;
  return new Promise((resolve, reject) => {
    const stop = (path: string, message: string): void => reject(new FaultError([{ path, message, example: WHOLE }]));
    zip.on('entry', (entry: Entry) => {
      const name = entry.fileName;
      all += entry.uncompressedSize;
      if (entries.has(name)) return stop(name, 'is in the zip twice');
      if (entry.isEncrypted()) return stop(name, 'is locked with a password');
      if (name !== MANIFEST && kindOf(name) === undefined) return stop(name, 'is not a place where something of an archive lies');
      if (entry.uncompressedSize > (kindOf(name) === 'photo' ? MOST.picture : MOST.text))
        return stop(name, 'is larger than any file of an archive');
      if (all > MOST.all) return stop('', 'holds more than an archive may: at most 16 GB');
      if (entries.size >= MOST.files) return stop('', 'holds more files than an archive may: at most 300,000');
      entries.set(name, entry);
      zip.readEntry();
    });
    zip.once('end', () => resolve(entries));
    zip.once('error', (error: Error) => reject(new FaultError([notAnArchive(error)])));
    zip.readEntry();
  });
}

function streamOf(zip: ZipFile, entry: Entry): Promise<Readable> {
  return new Promise((resolve, reject) => {
    zip.openReadStream(entry, (error, stream) => {
      if (stream) resolve(stream);
      else reject(new FaultError([torn(entry.fileName, error)]));
    });
  });
}

const torn = (path: string, error: Error | null): Fault => ({
  path,
  message: `cannot be unpacked: ${error?.message ?? ''}`,
  example: WHOLE,
});

async function bytesOf(path: string, stream: Readable, most: number): Promise<Buffer> {
  const pieces: Buffer[] = [];
  let size = 0;
  try {
    for await (const piece of stream) {
      size += (piece as Buffer).length;
      if (size > most) refuse(path, 'is larger than any file of an archive', WHOLE);
      pieces.push(piece as Buffer);
    }
  } catch (error) {
    if (error instanceof FaultError) throw error;
    throw new FaultError([torn(path, error as Error)]);
  }
  return Buffer.concat(pieces);
}

async function manifestOf(zip: ZipFile, entries: ReadonlyMap<string, Entry>): Promise<Manifest> {
  const entry = entries.get(MANIFEST);
  if (!entry) return refuse(MANIFEST, 'is missing: this zip was not written by Isometra', WHOLE);
  const text = (await bytesOf(MANIFEST, await streamOf(zip, entry), MOST.text)).toString('utf8');
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (error) {
    return refuse(MANIFEST, `is not JSON: ${(error as Error).message}`, `{ "format": "${ARCHIVE_FORMAT}", … }`);
  }
  const format = (raw as { readonly format?: unknown } | null)?.format;
  if (typeof format === 'string' && /^isometra-archive\/\d+$/.test(format) && format !== ARCHIVE_FORMAT)
    refuse(`${MANIFEST}: format`, `is ${format}, and this version of Isometra reads ${ARCHIVE_FORMAT}`, 'a newer version of Isometra');
  const parsed = manifestSchema.safeParse(raw);
  if (!parsed.success) throw new FaultError(faultsIn(MANIFEST, parsed.error));
  return parsed.data;
}
