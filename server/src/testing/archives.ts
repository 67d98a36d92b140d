import { createHash, randomUUID } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { ArchiveLine, ArchiveResult, Manifest } from '@isometra/contract/archive';
import type { TestShop } from './shop.js';

/** Files of an archive by their paths, taken apart by a library of its own. */
export type Files = Record<string, Uint8Array>;

const binary = (response: unknown, done: (error: Error | null, body: Buffer) => void): void => {
  const stream = response as NodeJS.ReadableStream;
  const pieces: Buffer[] = [];
  stream.on('data', (piece: Buffer) => pieces.push(piece));
  stream.on('end', () => done(null, Buffer.concat(pieces)));
  stream.on('error', (error: Error) => done(error, Buffer.alloc(0)));
};

/** What the shop writes as an archive. */
export async function exported({ http }: TestShop, query: Record<string, string> = {}): Promise<Buffer> {
  return (await http.get('/api/archive.zip').query(query).buffer().parse(binary).expect(200)).body as Buffer;
}

export const filesOf = (zip: Uint8Array): Files => unzipSync(zip);
export const manifestOf = (zip: Uint8Array): Manifest => JSON.parse(strFromU8(filesOf(zip)['manifest.json'])) as Manifest;

/** Two archives that hold the same have the same of this. */
export function sameness(zip: Uint8Array): Record<string, string> {
  const { 'manifest.json': manifest, ...files } = filesOf(zip);
  const { written: _written, ...others } = JSON.parse(strFromU8(manifest)) as Manifest;
  return { ...Object.fromEntries(Object.entries(files).map(([path, bytes]) => [path, sha256(bytes)])), manifest: JSON.stringify(others) };
}

export const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** Send an archive into the shop, or have it looked at. */
export async function sent(
  { http }: TestShop,
  zip: Uint8Array,
  fields: Record<string, string> = {},
  look = false,
): Promise<{ readonly result?: ArchiveResult; readonly errors?: readonly { readonly path: string; readonly message: string }[] }> {
  const request = http.post(look ? '/api/archive/look' : '/api/archive');
  for (const [name, value] of Object.entries(fields)) void request.field(name, value);
  const { text } = await request.attach('archive', Buffer.from(zip), 'archive.zip').buffer().parse(binaryText).expect(200);
  const lines = text
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as ArchiveLine);
  return lines.at(-1) as never;
}

const binaryText = (response: unknown, done: (error: Error | null, body: unknown) => void): void =>
  binary(response, (error, body) => {
    (response as { text?: string }).text = body.toString('utf8');
    done(error, body);
  });

/** Change files of an archive as somebody would who knows how: sizes and hashes of the manifest follow. */
export function forged(zip: Uint8Array, change: (files: Files) => void, { honest = true } = {}): Uint8Array {
  const files = filesOf(zip);
  change(files);
  if (honest) {
    const manifest = JSON.parse(strFromU8(files['manifest.json'])) as Manifest;
    const listed = Object.entries(files).filter(([path]) => path !== 'manifest.json');
    manifest.files = listed.map(([path, bytes]) => ({ path, size: bytes.length, sha256: sha256(bytes) }));
    files['manifest.json'] = strToU8(JSON.stringify(manifest));
  }
  return zipSync(files);
}

/** Change one JSON file of an archive. */
export function edited(files: Files, path: string, change: (content: Record<string, unknown>) => void): void {
  const content = JSON.parse(strFromU8(files[path])) as Record<string, unknown>;
  change(content);
  files[path] = strToU8(JSON.stringify(content));
}

/** An archive as a file, while something is done with it. */
export async function onDisk<T>(zip: Uint8Array, work: (file: string) => Promise<T>): Promise<T> {
  const file = join(tmpdir(), `isometra-spec-${randomUUID()}.zip`);
  writeFileSync(file, zip);
  try {
    return await work(file);
  } finally {
    await rm(file, { force: true });
  }
}
