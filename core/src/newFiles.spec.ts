import { execFileSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('../../', import.meta.url));

/** The specs that a new check and a new move must pass: their own, and those that ask every one. */
const OWN = ['checks/catalogue/ramParallelism', 'moves/ramScrew', 'cases', 'checks/files', 'moves/forward', 'practice/models'];

/** Seconds that the processor has worked for the programs started here, whatever else the machine is doing. */
function worked(): number {
  const fields = readFileSync('/proc/self/stat', 'utf8')
    .replace(/^.*\) /, '')
    .split(' ');
  const TICKS = 100;
  return (Number(fields[13]) + Number(fields[14])) / TICKS;
}

describe('npm run new', () => {
  let copy: string;
  beforeAll(() => {
    copy = mkdtempSync(join(tmpdir(), 'isometra-new-'));
    for (const part of ['core', 'tools', 'CONTRIBUTING.md', 'tsconfig.base.json', 'package.json', 'package-lock.json'])
      cpSync(join(root, part), join(copy, part), { recursive: true, preserveTimestamps: true });
    symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));
  });
  afterAll(() => rmSync(copy, { recursive: true, force: true }));

  const node = (...args: string[]) => execFileSync(process.execPath, args, { cwd: copy, encoding: 'utf8', stdio: 'pipe' });

  it('makes a check and a move that are green in under a minute', () => {
    const before = worked();
    node('tools/new.mjs', 'move', 'ram-screw');
    const made = node('tools/new.mjs', 'check', 'ram-parallelism');
    for (const file of ['catalogue/ramParallelism.ts', 'catalogue/ramParallelism.spec.ts', 'ram-parallelism-1.json', 'CONTRIBUTING.md'])
      expect(made).toContain(file);
    const typescript = join(root, 'node_modules', 'typescript', 'bin', 'tsc');
    const include = [...OWN.map((name) => `src/${name}.spec.ts`), 'src/testing'];
    writeFileSync(
      join(copy, 'core/tsconfig.new.json'),
      JSON.stringify({ extends: './tsconfig.spec.json', include, references: [{ path: '.' }] }),
    );
    node(typescript, '-p', 'core/tsconfig.new.json');
    const filter = 'Ram|ram-|the files of the catalogue|a plan that is followed exactly';
    const specs = OWN.map((name) => `core/dist/${name}.spec.js`);
    const told = node(join(root, 'node_modules', 'jasmine', 'bin', 'jasmine.js'), ...specs, `--filter=${filter}`);
    // Their own specs, their cases, the model, the catalogue and what the plan does.
    expect(Number(/(\d+) specs, 0 failures/.exec(told)?.[1] ?? 0))
      .withContext(told)
      .toBeGreaterThan(12);
    expect(() => node('tools/new.mjs', 'move', 'ram-screw')).toThrowError(/is there already/);
    expect(worked() - before).toBeGreaterThan(1);
    expect(worked() - before).toBeLessThan(60);
  });
});
