import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';

/** What works findings out: the built core, and what makes a sheet of a round and a head of a finding. */
const MAKERS = ['../../../core/dist', '../../../work/dist'].map((path) => fileURLToPath(new URL(path, import.meta.url)));

/** Parts of the core that no finding comes from. */
const NO_MATTER = /(?:^|\/)(?:practice|testing|scraping\/print)\//;

function filesIn(folder: string): string[] {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && entry.name.endsWith('.js') && !entry.name.endsWith('.spec.js'))
    .map((entry) => join(entry.parentPath, entry.name))
    .filter((path) => !NO_MATTER.test(relative(folder, path)))
    .sort();
}

/** A hash of some folders of built code: it differs as soon as one line of them does. */
export function fingerprintOf(folders: readonly string[]): string {
  const hash = createHash('sha256');
  for (const folder of folders)
    for (const path of filesIn(folder)) hash.update(relative(folder, path)).update('\0').update(readFileSync(path)).update('\0');
  return hash.digest('hex').slice(0, 16);
}

/**
 * Fingerprint of what works findings out. A finding is kept with it and worked out anew when it differs, so that no verdict is older than
 * the code that made it.
 */
export const CORE_VERSION: string = fingerprintOf(MAKERS);
