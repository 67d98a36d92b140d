import { FaultError } from '@isometra/core';
import { contentFaults } from './contentFaults.js';
import type { Content } from './files.js';
import { kindOf, type OpenArchive } from './reading.js';
import { References } from './references.js';
import { photoPath, picturePath } from './things.js';
import { Stopped } from './writing.js';

/** How far it is is told, and it can be stopped. */
export interface Watched {
  readonly signal?: AbortSignal;
  readonly tell?: (doing: string, done: number, of: number) => void;
}

/** Photographs that something says it has must be there. */
function refuseLost(archive: OpenArchive, kind: string, path: string, content: Content): void {
  const photos =
    kind === 'kit'
      ? (content['photos'] as readonly Content[]).map((photo) => photoPath(String(content['id']), photo))
      : kind === 'pictures'
        ? [picturePath(String(content['hash']), String(content['type']))]
        : [];
  const lost = photos.find((photo) => !archive.has(photo));
  if (lost) throw new FaultError([{ path, message: `its photograph is not in the archive: ${lost}`, example: lost }]);
}

/** Hold every file of an archive against its SHA-256 and against what may stand in it. @throws FaultError, Stopped */
export async function verifyArchive(archive: OpenArchive, { signal, tell }: Watched = {}): Promise<References> {
  const paths = archive.paths();
  const references = new References(paths);
  let done = 0;
  for await (const { path, content } of archive.verified()) {
    if (signal?.aborted) throw new Stopped();
    const kind = kindOf(path);
    if (content && kind && kind !== 'photo') {
      const faults = contentFaults(kind, content);
      if (faults.length) throw new FaultError(faults.map((fault) => ({ ...fault, path: `${path}: ${fault.path}` })));
      refuseLost(archive, kind, path, content);
      references.read(kind, path, content);
    }
    done += 1;
    tell?.('reading', done, paths.length);
  }
  return references;
}
