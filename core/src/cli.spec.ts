import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const BIN = fileURLToPath(new URL('../../bin/isometra.mjs', import.meta.url));
const CASES = fileURLToPath(new URL('../cases/', import.meta.url));

describe('the command line', () => {
  let folder: string;
  beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'isometra-cli-'))));
  afterAll(() => rmSync(folder, { recursive: true }));

  const file = (name: string, content: unknown): string => {
    const path = join(folder, name);
    writeFileSync(path, typeof content === 'string' ? content : JSON.stringify(content));
    return path;
  };
  const run = (args: string[], input?: string) => {
    const done = spawnSync(process.execPath, [BIN, ...args], { input, encoding: 'utf8' });
    return { code: done.status, out: done.stdout, err: done.stderr };
  };
  const sheetOf = (name: string) => JSON.parse(readFileSync(join(CASES, 'checks', `${name}.json`), 'utf8'));
  const good = () => sheetOf('tailstock-traverse-0').sheet;

  it('solves a file and prints the finding alone', () => {
    const { code, out, err } = run(['solve', file('good.json', good())]);
    expect(code).toBe(0);
    expect(err).toBe('');
    const finding = JSON.parse(out);
    expect(finding.format).toBe('isometra-finding/1');
    expect(finding.quantities.offsetHorizontal.value).toBeCloseTo(-11.56, 2);
  });

  it('reads standard input', () => {
    const { code, out } = run(['solve', '-'], JSON.stringify(good()));
    expect(code).toBe(0);
    expect(JSON.parse(out).check).toBe('tailstock-traverse');
  });

  it('takes a byte order mark', () => {
    expect(run(['solve', '-'], `\uFEFF${JSON.stringify(good())}`).code).toBe(0);
  });

  it('refuses a sheet that makes no sense: nothing on standard output, every fault on standard error', () => {
    const { code, out, err } = run(['solve', file('bad.json', { ...good(), setup: { centreDistance: 'far' }, extra: 1 })]);
    expect(code).toBe(2);
    expect(out).toBe('');
    const { errors } = JSON.parse(err);
    expect(errors.map((fault: { path: string }) => fault.path).sort()).toEqual(['extra', 'setup.centreDistance']);
    for (const fault of errors) expect(Object.keys(fault).sort()).toEqual(['example', 'message', 'path']);
  });

  it('refuses what is not JSON, and a file that is not there', () => {
    expect(JSON.parse(run(['solve', file('text.json', '{ "check": ')]).err).errors[0].message).toContain('is not JSON');
    const { code, err } = run(['solve', join(folder, 'nothing.json')]);
    expect(code).toBe(2);
    expect(JSON.parse(err).errors[0].message).toContain('cannot read');
  });

  it('several files: a line for each, in order, and 2 when any was refused', () => {
    const paths = [file('one.json', good()), file('two.json', '[]'), file('three.json', sheetOf('bed-twist-0').sheet)];
    const { code, out, err } = run(['solve', ...paths]);
    expect(code).toBe(2);
    expect(err).toBe('');
    const lines = out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line));
    expect(lines.map((line) => line.file)).toEqual(paths);
    expect(lines.map((line) => Object.keys(line).sort().join())).toEqual(['file,finding', 'errors,file', 'file,finding']);
    expect(run(['solve', paths[0], paths[2]]).code).toBe(0);
  });

  it('works out moves the same way', () => {
    const move = { format: 'isometra-move/1', move: 'adjuster', amount: '21 um', pitch: 1.5 };
    const plan = JSON.parse(run(['move', file('move.json', move)]).out);
    expect(plan).toEqual(jasmine.objectContaining({ format: 'isometra-move-plan/1', move: 'adjuster' }));
    const { code, out } = run(['move', file('a.json', move), file('b.json', { ...move, pitch: 'coarse' })]);
    expect(code).toBe(2);
    const lines = out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line));
    expect(lines[0].plan.turns).toBeCloseTo(0.014, 9);
    expect(lines[1].errors[0].path).toBe('pitch');
  });

  it('says how it is used', () => {
    expect(run(['--help']).out).toContain('usage: isometra solve FILE');
    expect(run(['dance']).code).toBe(2);
    expect(JSON.parse(run(['solve']).err).errors[0].message).toBe('no file given');
  });
});
