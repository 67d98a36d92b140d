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
  { kind: 'instrument', name: 'Micrometer 25–50', data: { kind: 'micrometer', graduation: '0.001 mm', readTo: 1, accuracy: '1.5 um' } },
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
