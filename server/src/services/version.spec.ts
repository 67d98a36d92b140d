import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CORE_VERSION, fingerprintOf } from './version.js';

describe('the fingerprint of what works findings out', () => {
  let folder: string;
  beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'isometra-print-'))));
  afterEach(() => rmSync(folder, { recursive: true }));
  const write = (name: string, text: string) => writeFileSync(join(folder, name), text);

  it('differs as soon as one line of the code does, and not for what finds nothing', () => {
    write('a.js', 'export const half = 0.5;');
    const before = fingerprintOf([folder]);
    expect(before).toMatch(/^[0-9a-f]{16}$/);
    write('a.spec.js', 'anything');
    write('notes.txt', 'anything');
    expect(fingerprintOf([folder])).toBe(before);
    write('a.js', 'export const half = 0.6;');
    expect(fingerprintOf([folder])).not.toBe(before);
    expect(CORE_VERSION).toMatch(/^[0-9a-f]{16}$/);
  });
});
