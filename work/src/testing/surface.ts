import type { DeskEntry, EntryKind, Surface } from '@isometra/contract';

const box = (id: string, x: number, width: number, height: number, use: Surface['zones'][number]['use'] = 'bear') => ({
  id,
  use,
  outline: [
    { x, y: 0 },
    { x: x + width, y: 0 },
    { x: x + width, y: height },
    { x, y: height },
  ],
});

/** A flat way of a saddle, 400 × 60 mm, in four strips. */
export const face = (part: Partial<Surface> = {}): Surface => ({
  id: crypto.randomUUID(),
  machineId: crypto.randomUUID(),
  name: 'Saddle, flat way',
  part: 'Saddle',
  use: 'general',
  target: null,
  material: 'iron',
  liner: null,
  width: 400,
  height: 60,
  turned: 0,
  mirrored: false,
  zones: [box('1', 0, 100, 60), box('2', 100, 100, 60), box('3', 200, 100, 60), box('4', 300, 100, 60)],
  reference: { kitId: null, name: 'straightedge, 500', length: 500 },
  aim: { check: 'saddle-squareness', quantity: 'squareness', unit: 'um/m', wanted: 0, room: 20, lever: 2 },
  passes: { rough: 12, fine: 5, keepFine: 2 },
  evening: { session: 150, setUp: 20, cycle: 25 },
  version: 1,
  ...part,
});

/** Entries of a face, one after the other, some minutes apart. */
export class DeskDiary {
  private at = Date.parse('2026-03-02T17:00:00.000Z');
  readonly entries: DeskEntry[] = [];

  constructor(readonly surface: Surface) {}

  /** So many minutes go by. */
  later(minutes: number): this {
    this.at += minutes * 60_000;
    return this;
  }

  write<Kind extends EntryKind>(
    kind: Kind,
    content: Extract<DeskEntry, { kind: Kind }>['content'],
    supersedes: string | null = null,
  ): DeskEntry {
    this.later(1);
    const entry = {
      id: crypto.randomUUID(),
      surfaceId: this.surface.id,
      kind,
      content,
      supersedes,
      by: 'RM',
      at: new Date(this.at).toISOString(),
    } as DeskEntry;
    this.entries.push(entry);
    return entry;
  }

  passes(count: number, ...zones: string[]): this {
    for (let i = 0; i < count; i++) for (const zone of zones) this.write('pass', { zone, kind: 'whole', grade: 'rough', angle: 45 });
    return this;
  }

  blue(film: number | null = 4): this {
    this.write('blue', { film, dye: false, pressed: null });
    return this;
  }
}
