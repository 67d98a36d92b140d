/* global WebAssembly */
// The scraping desk: a photograph of twelve megapixels, and a face with ten thousand passes behind it.
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import encodeJpeg, { init } from '@jsquash/jpeg/encode.js';
import { photographPrint, strewn } from '@isometra/core/practice';
import { readPrint } from '@isometra/core/print';
import { decodePicture, decodersFrom } from '@isometra/core/print-files';
import { deskOf, gridZones } from '@isometra/work';
import { ms, report } from './target.mjs';

const fileOf = (file) => readFile(fileURLToPath(import.meta.resolve(file)));
const CORNERS = [
  { x: 120, y: 90 },
  { x: 3890, y: 130 },
  { x: 3840, y: 2930 },
  { x: 80, y: 2980 },
];

async function print() {
  const size = { width: 200, height: 150 };
  const photo = photographPrint(
    { ...size, film: 4, bumps: strewn(200, 150, 20, { seed: 1 }) },
    { width: 4000, height: 3000, corners: CORNERS },
  );
  await init(await WebAssembly.compile(await fileOf('@jsquash/jpeg/codec/enc/mozjpeg_enc.wasm')));
  const { data, width, height } = photo;
  const jpeg = new Uint8Array(
    await encodeJpeg({ data, width, height }, { quality: 85, baseline: true, progressive: false, optimize_coding: false }),
  );
  const began = performance.now();
  readPrint(await decodePicture(jpeg, decodersFrom(fileOf)), { scale: { corners: CORNERS, size } });
  const took = performance.now() - began;
  report('a print of 12 megapixels, decoded and read', ms(took), 'at most 2000 ms', took <= 2000);
}

function desk() {
  const at = (i) => new Date(Date.parse('2026-01-01T00:00:00.000Z') + 60_000 * i).toISOString();
  const entry = (i, kind, content) => ({ id: String(i), surfaceId: 's', kind, content, supersedes: null, by: 'RM', at: at(i) });
  const entries = Array.from({ length: 10_000 }, (_, i) =>
    i % 100 === 0
      ? entry(i, 'measure', { value: 100 - i / 200, doubt: 2, roundId: null })
      : entry(i, 'pass', { zone: String(1 + (i % 4)), kind: 'whole', grade: 'rough', angle: 45 }),
  );
  const surface = {
    ...{ id: 's', machineId: 'm', name: 'face', part: 'saddle', use: 'general', target: null, material: 'iron', liner: null, version: 1 },
    ...{ width: 400, height: 60, turned: 0, mirrored: false, zones: gridZones(400, 60, 4, 1) },
    ...{ reference: { kitId: null, name: 'edge', length: 500 }, passes: { rough: 12, fine: 5, keepFine: 2 } },
    aim: { check: 'saddle-squareness', quantity: 'squareness', unit: 'um/m', wanted: 0, room: 20, lever: 2 },
    evening: { session: 150, setUp: 20, cycle: 25 },
  };
  deskOf(surface, entries.slice(0, 100));
  const began = performance.now();
  deskOf(surface, entries);
  const took = performance.now() - began;
  report('the desk of a face with 10 000 entries', ms(took), 'at most 100 ms', took <= 100);
}

export async function measureScraping() {
  desk();
  await print();
}
