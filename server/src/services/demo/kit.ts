import type { KitItem } from '@isometra/contract';

type DemoItem = Omit<KitItem, 'id' | 'version' | 'care' | 'photos'> & { readonly care?: KitItem['care'] };

/** Dials of the demo shop. */
export const INSTRUMENTS: readonly DemoItem[] = [
  {
    kind: 'instrument',
    name: 'Lever dial, 2 µm',
    data: { kind: 'lever', graduation: '0.002 mm', range: 100, leverAngle: 12, readTo: 0.5, accuracy: '1 um', contactForce: '0.15 N' },
  },
  {
    kind: 'instrument',
    name: 'Lever dial, half thou',
    data: { kind: 'lever', graduation: '0.5 thou', range: 60, leverAngle: 0, readTo: 0.5, accuracy: '0.2 thou', contactForce: '0.15 N' },
  },
  {
    kind: 'instrument',
    name: 'Plunger on the short holder',
    data: { kind: 'plunger', graduation: '0.002 mm', range: 200, readTo: 0.5, accuracy: '1 um', holderSag: '-9 um', contactForce: '0.8 N' },
  },
  {
    kind: 'instrument',
    name: 'Plunger, hundredths',
    data: { kind: 'plunger', graduation: '0.01 mm', range: 100, readTo: 0.5, accuracy: '4 um', contactForce: '1 N' },
  },
  { kind: 'instrument', name: 'Level, 20 µm/m', data: { kind: 'level', graduation: '20 um/m', readTo: 0.5, accuracy: '4 um/m' } },
  { kind: 'instrument', name: 'Micrometer 100–125', data: { kind: 'micrometer', graduation: '0.01 mm', readTo: 0.5, accuracy: '3 um' } },
  { kind: 'instrument', name: 'Micrometer 25–50', data: { kind: 'micrometer', graduation: '0.001 mm', readTo: 1, accuracy: '1.5 um' } },
];

/** Holders, bars, squares and the rest. */
export const ARTEFACTS: readonly DemoItem[] = [
  {
    kind: 'holder',
    name: 'Long arm with the clamp',
    data: { sag: '-21 um', reach: '180 mm' },
    care: { notes: [{ at: '2026-09-01', by: 'RM', text: 'Droop measured: -21 µm' }] },
  },
  { kind: 'holder', name: 'Short holder', data: { sag: '-9 um', reach: '70 mm' } },
  {
    kind: 'test-bar',
    name: 'Ground bar, 32 mm',
    data: { diameter: '32 mm', length: '650 mm', material: 'steel', finish: 'ground', bend: '2 um', evenness: '1 um' },
    care: {
      certificate: 'TW-17',
      certified: '2026-02-10',
      due: '2027-02-10',
      notes: [{ at: '2026-06-12', by: 'HB', text: 'Turned in vees: bent 2 µm in the middle' }],
    },
  },
  {
    kind: 'test-bar',
    name: 'Hollow bar, 50 mm',
    data: { diameter: '50 mm', bore: '38 mm', length: '320 mm', material: 'steel', finish: 'ground', evenness: '1.5 um' },
    care: { certificate: 'TW-18', certified: '2024-09-01', due: '2026-09-01' },
  },
  {
    kind: 'straightedge',
    name: 'Camelback, 900 mm',
    data: { length: '900 mm', straightness: '4 um', material: 'cast-iron' },
    care: { certificate: 'TW-09', certified: '2025-12-15', due: '2026-12-15' },
  },
  {
    kind: 'square',
    name: 'Granite square, 300 mm',
    data: { blade: '300 mm', error: '7 um/m', doubt: '3 um/m' },
    care: {
      certificate: 'TW-11',
      certified: '2025-10-02',
      due: '2026-10-02',
      notes: [{ at: '2026-04-20', by: 'EK', text: 'Flipped: off by 7 µm/m, as on the paper' }],
    },
  },
  { kind: 'pins', name: 'Pins, 10 mm', data: { diameter: '10 mm', matched: '1 um' } },
  { kind: 'blocks', name: 'Tram block', data: { height: '50 mm', matched: false } },
  { kind: 'sine-plate', name: 'Sine plate, 100 mm', data: { rolls: '100 mm' } },
];

/** The shim drawer. */
export const SHIM_DRAWER: DemoItem = {
  kind: 'shim-stock',
  name: 'Shim drawer',
  data: {
    stock: [
      { thickness: '0.01 mm', count: 4 },
      { thickness: '0.02 mm', count: 3 },
      { thickness: '0.05 mm', count: 6 },
      { thickness: '0.10 mm', count: 4 },
      { thickness: '0.15 mm', count: 2 },
      { thickness: '0.25 mm', count: 2 },
    ],
  },
};
