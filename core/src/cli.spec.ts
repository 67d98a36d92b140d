import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { photographPrint, strewn, type Camera, type MadePrint } from './practice/printMaker.js';
import { asJpeg } from './testing/pictures.js';

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

  it('adds the steps of a move, in millimetres and with + and −, when asked', () => {
    const move = { format: 'isometra-move/1', move: 'adjuster', amount: '-0.12 mm', pitch: 1.5 };
    const plan = JSON.parse(run(['move', '--steps', file('move.json', move)]).out);
    const texts: string[] = plan.steps.map(({ text }: { readonly text: string }) => text);
    expect(plan.turns).toBeCloseTo(-0.08, 9);
    expect(texts.some((text) => text.includes('about 29° of the screw'))).toBeTrue();
    expect(plan.steps.some(({ caution }: { readonly caution?: string }) => caution?.includes('lock out the machine'))).toBeTrue();
    const shim = { format: 'isometra-move/1', move: 'trucks', slope: '-130 um/m', spacing: 300, shoulder: 'left' };
    const truck = JSON.parse(run(['move', '--steps', file('truck.json', shim)]).out);
    expect(truck.steps.some(({ text }: { readonly text: string }) => text.includes('Lay in 0.039 mm between the rear truck'))).toBeTrue();
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

  it('describes what a file may hold, from a list of all to one by its name', () => {
    const list = run(['describe']).out;
    expect(list).toContain('bed-twist                   Bed twist');
    expect(list).toMatch(/Machines\n {2}engine-lathe +engine lathe/);
    const check = run(['describe', 'tailstock-traverse']).out;
    expect(check).toContain('| `centreDistance` | `mm` | yes | Distance between centres');
    expect(check).toContain('"check": "tailstock-traverse"');
    expect(run(['describe', 'engine-lathe']).out).toContain('| `adjuster.pitch` | `mm` | yes | Adjuster screw pitch | `1.5 mm` |');
    const { code, err } = run(['describe', 'bed-twits']);
    expect([code, JSON.parse(err).errors[0].example]).toEqual([2, 'bed-twist']);
  });

  describe('print', () => {
    const camera = {
      width: 480,
      height: 360,
      corners: [
        { x: 30, y: 20 },
        { x: 450, y: 30 },
        { x: 460, y: 340 },
        { x: 20, y: 330 },
      ],
    } as const;
    const made = { width: 40, height: 30, film: 4, bumps: strewn(40, 30, 26, { seed: 3 }) };
    const corners = camera.corners.map(({ x, y }) => `${x},${y}`).join(',');
    const photo = async (part: Partial<MadePrint> = {}) => {
      const taken = photographPrint({ ...made, ...part }, camera as unknown as Camera);
      const path = join(folder, `${Object.keys(part).join('-')}print.jpg`);
      writeFileSync(path, await asJpeg(taken));
      return { path, truth: taken.truth };
    };

    it('reads a photograph by its corners, and by two marks', async () => {
      const { path, truth } = await photo();
      const { code, out, err } = run(['print', path, '--corners', corners, '--size', '40,30']);
      expect([code, err]).toEqual([0, '']);
      const print = JSON.parse(out);
      expect(Object.keys(print)).toEqual(['format', 'spots', 'spotsPerSquare', 'bearingShare', 'largestBare', 'area']);
      expect(print.format).toBe('isometra-print/1');
      expect(Math.abs(print.spots - truth.spots)).toBeLessThanOrEqual(Math.max(1, 0.05 * truth.spots));
      expect(Math.abs(print.bearingShare - truth.share)).toBeLessThan(0.03);
      expect(print.area).toBeCloseTo(1200, 6);
      const ignored = run(['print', path, '--corners', corners, '--size', '40,30', '--ignore', '0,0,240,360', '--ignore', '240,0,10,360']);
      expect(JSON.parse(ignored.out).area).toBeLessThan(600);
      const marked = run(['print', path, '--marks', '30,20,450,30', '--apart', '40']);
      expect(JSON.parse(marked.out).area).toBeGreaterThan(1400);
      const inches = run(['print', path, '--marks', '30, 20, 450, 30', '--apart', '1.5748031 in']);
      expect(JSON.parse(inches.out).area).toBeCloseTo(JSON.parse(marked.out).area, 2);
    });

    it('without blue: no spots, exit 0, and a word of it beside', async () => {
      const { path } = await photo({ looks: { blue: [141, 142, 140] } });
      const { code, out, err } = run(['print', path, '--corners', corners, '--size', '40,30']);
      expect(code).toBe(0);
      expect(JSON.parse(out)).toEqual(jasmine.objectContaining({ spots: 0, spotsPerSquare: 0, bearingShare: 0 }));
      expect(err).toContain('No blue is seen');
    });

    it('refuses what is no picture and options that make no sense, with the reason', async () => {
      const { path } = await photo();
      const told = (...args: string[]) => {
        const { code, out, err } = run(['print', ...args]);
        expect([code, out]).toEqual([2, '']);
        return JSON.parse(err).errors.map((error: { path: string }) => error.path);
      };
      expect(told(file('words.jpg', 'not a picture'))).toEqual(['photo']);
      expect(told(join(folder, 'nowhere.png'))).toEqual(['photo']);
      expect(told(path, '--marks', '1,2,3,4')).toEqual(['apart']);
      expect(told(path, '--corners', '1,2,3', '--size', '40,x', '--ignore', '4')).toEqual(['corners', 'size', 'ignore']);
      expect(told(path, '--corner', '1,2')).toEqual(['']);
      expect(told()).toEqual(['']);
    });
  });

  it('tells a story: the example of the docs comes out as they say', () => {
    const docs = readFileSync(fileURLToPath(new URL('../../docs/sheets.md', import.meta.url)), 'utf8');
    const examples = [...docs.matchAll(/```json\n([\s\S]*?)```/g)].map(([, text]) => JSON.parse(text) as { format: string });
    const history = examples.find(({ format }) => format === 'isometra-history/1');
    const { code, out, err } = run(['history', file('history.json', history)]);
    expect(err).toBe('');
    expect(code).toBe(0);
    const story = JSON.parse(out);
    expect(story.format).toBe('isometra-story/1');
    expect(story.steps.length).toBe(3);
    expect(story.steps[2].judged.word).toBe('fell-short');
    expect(story.steps[2].judged.g).toBeCloseTo(0.5, 2);
    expect(story.steps[2].plan.turns).toBeCloseTo(2 * (story.steps[2].plan.amount / 1500), 3);
    const refused = run(['history', '-'], '{"format": "isometra-history/1"}');
    expect(refused.code).toBe(2);
    expect(refused.out).toBe('');
    expect(JSON.parse(refused.err).errors.map((fault: { path: string }) => fault.path)).toEqual(['machine', 'entries']);
    const sheets = examples.filter(({ format }) => format === 'isometra-sheet/1');
    for (const sheet of sheets) expect(run(['solve', '-'], JSON.stringify(sheet)).code).toBe(0);
  });

  it('refuses what is nested too deeply, in a line, whatever the command', () => {
    const deep = `${'{"a":'.repeat(100_000)}1${'}'.repeat(100_000)}`;
    for (const [command, format] of [
      ['solve', 'sheet'],
      ['move', 'move'],
      ['history', 'history'],
    ]) {
      const { code, out, err } = run(
        [command, '-'],
        `{"format":"isometra-${format}/1","check":"bed-twist","machine":${deep},"setup":${deep}}`,
      );
      expect(code).toBe(2);
      expect(out).toBe('');
      expect(JSON.parse(err).errors[0].message).toContain('nested deeper');
    }
  });
});
