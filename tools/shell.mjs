// Small pieces shared by the scripts in tools/.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The repository's root folder. */
export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..');

/** Where the application keeps its own data. */
export const DATA = process.env.ISOMETRA_DATA ?? join(ROOT, '.data');

/** Run a command to its end, its output going where ours goes (standard error, to keep standard output clean). */
export function run(command, args, options = {}) {
  const { quiet = false, ...rest } = options;
  const done = spawnSync(command, args, { cwd: ROOT, stdio: quiet ? 'pipe' : ['ignore', 2, 2], ...rest });
  if (done.error) throw done.error;
  if (done.status !== 0) {
    if (quiet) process.stderr.write(`${done.stdout ?? ''}${done.stderr ?? ''}`);
    throw new Error(`${command} ${args.join(' ')} ended with ${done.status ?? done.signal}`);
  }
}

/** Whether a program can be found on the path or in the usual system folders. */
export function which(name) {
  const folders = [...(process.env.PATH ?? '').split(':'), '/usr/sbin', '/usr/local/sbin', '/sbin', '/usr/bin'];
  return folders.map((folder) => join(folder, name)).find((path) => existsSync(path));
}

export const isRoot = () => process.getuid?.() === 0;

/** Install a Debian package when its program is missing: as root with apt, otherwise say what to do. */
export function ensureProgram(programs, debianPackage, purpose) {
  const found = programs.map(which).find(Boolean);
  if (found) return found;
  if (!isRoot() || !which('apt-get')) {
    throw new Error(
      `${purpose} needs ${programs[0]}, which is not installed. Install it with your system's packages (on Debian: sudo apt-get install ${debianPackage}) and run this again.`,
    );
  }
  console.error(`Installing ${debianPackage} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update', '-qq'], { env });
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', debianPackage], { env });
  const now = programs.map(which).find(Boolean);
  if (!now) throw new Error(`${debianPackage} was installed, but ${programs[0]} is still not found.`);
  return now;
}

/** Install the npm packages when the lock file has changed since they were last installed. */
export function ensurePackages() {
  const lock = readFileSync(join(ROOT, 'package-lock.json'));
  const stamp = join(ROOT, 'node_modules', '.isometra-lock');
  const wanted = createHash('sha256').update(lock).digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  console.error('Installing npm packages …');
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel', 'error']);
  writeFileSync(stamp, wanted);
}

/** Fingerprint of some folders and files: names, sizes and times of change. */
export function fingerprint(paths) {
  const hash = createHash('sha256');
  const visit = (path) => {
    const stat = statSync(path, { throwIfNoEntry: false });
    if (!stat) return;
    if (stat.isDirectory()) {
      for (const name of readdirSync(path).sort()) {
        if (name !== 'node_modules' && name !== 'dist' && !name.startsWith('.')) visit(join(path, name));
      }
    } else hash.update(`${relative(ROOT, path)}:${stat.size}:${stat.mtimeMs}\n`);
  };
  paths.map((path) => join(ROOT, path)).forEach(visit);
  return hash.digest('hex');
}

/** Build what some sources make, unless all of it is there already and was made of the same sources. */
export function unlessDone(name, products, sources, work) {
  const folder = join(ROOT, 'node_modules', '.isometra');
  const stamp = join(folder, name);
  const now = fingerprint(sources);
  const there = products.every((product) => existsSync(join(ROOT, product)));
  if (there && existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  work();
  mkdirSync(folder, { recursive: true });
  writeFileSync(stamp, now);
}

/** The path of a program that an npm package brings. */
export const bin = (name) => join(ROOT, 'node_modules', '.bin', name);

/** Throw away what was built from sources that are gone: it would still be run, and found by imports. */
export function forgetOldBuilds() {
  for (const workspace of ['core', 'contract', 'work', 'server']) {
    const dist = join(ROOT, workspace, 'dist');
    if (!existsSync(dist)) continue;
    for (const name of readdirSync(dist, { recursive: true }).map(String)) {
      const stem = /^(.*?)\.(?:d\.ts|js)(?:\.map)?$/.exec(name)?.[1];
      if (stem && !existsSync(join(ROOT, workspace, 'src', `${stem}.ts`))) rmSync(join(dist, name));
    }
  }
}

/** Folders that hold nothing of the project's own: what is installed, built, or left behind by a run. */
const NOT_OWN = new Set(['node_modules', 'dist', 'test-results', 'playwright-report']);

/** Files of the project, by their paths from its root. The folder may be a copy without its history. */
export function ownFiles(folder = '') {
  if (!existsSync(join(ROOT, folder))) return [];
  const entries = readdirSync(join(ROOT, folder), { withFileTypes: true });
  return entries.flatMap((entry) => {
    const path = folder ? `${folder}/${entry.name}` : entry.name;
    if (entry.isFile()) return [path];
    return entry.isDirectory() && !NOT_OWN.has(entry.name) && !entry.name.startsWith('.') ? ownFiles(path) : [];
  });
}
