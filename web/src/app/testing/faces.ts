import type { DeskEntry, EntryKind, StoredSurface, Surface } from '@isometra/contract';
import { gridZones } from '@isometra/work';
import { LATHE } from './fake-shop';

export const FACE = 'b1b0c4d2-0000-4000-8000-000000000001';
export const face = (part: Partial<Surface> = {}): Surface => ({
  ...{ id: FACE, machineId: LATHE, name: 'Saddle, flat way', part: 'Saddle', use: 'general', target: null, material: 'iron', liner: null },
  ...{ width: 400, height: 60, turned: 0, mirrored: false, zones: gridZones(400, 60, 4, 1), version: 1 },
  reference: { kitId: null, name: 'edge', length: 500 },
  aim: { check: 'saddle-squareness', quantity: 'squareness', unit: 'um/m', wanted: 0, room: 20, lever: 2.5 },
  passes: { rough: 12, fine: 5, keepFine: 2 },
  evening: { session: 150, setUp: 20, cycle: 25 },
  ...part,
});
let clock = Date.parse('2026-01-02T18:00:00.000Z');
export const entry = <Kind extends EntryKind>(kind: Kind, content: Extract<DeskEntry, { kind: Kind }>['content']): DeskEntry =>
  ({
    id: crypto.randomUUID(),
    surfaceId: FACE,
    kind,
    content,
    supersedes: null,
    by: 'RM',
    at: new Date((clock += 60_000)).toISOString(),
  }) as DeskEntry;
export const plan = (...depths: number[]) =>
  entry('plan', { depths: depths.map((depth, i) => ({ zone: String(i + 1), depth })), from: 'hand', why: 'so' });
export const stored = (surface: Surface, ...entries: DeskEntry[]): StoredSurface => ({ ...surface, entries });
