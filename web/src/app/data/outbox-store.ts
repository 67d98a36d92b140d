import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import * as z from 'zod';

/** A write that the server has not taken yet. Its content carries its own UUID, so it may be sent again. */
export const entrySchema = z.object({
  /** Its place in the line. */
  key: z.number(),
  /** Tells this write from every other. */
  token: z.string(),
  /** The row that it makes or changes. */
  id: z.string(),
  what: z.enum(['round', 'reading', 'move', 'note', 'photo', 'picture', 'surface', 'entry', 'remark', 'part']),
  method: z.enum(['POST', 'PUT']),
  path: z.string(),
  /** JSON, or a photograph. */
  body: z.unknown(),
  /** The round, survey or piece of kit that it belongs to. */
  about: z.string(),
  machineId: z.string().nullable(),
});
export type Entry = z.infer<typeof entrySchema>;
export type NewEntry = Omit<Entry, 'key' | 'token'>;
/** A write with its token and when it was asked for, ms: it has no place in the line yet. */
export const tokenedSchema = entrySchema.omit({ key: true }).extend({ noted: z.number() });
export type Tokened = z.infer<typeof tokenedSchema>;

/** A write that the server refused, with what it said: a draft to put right. */
export const refusedSchema = entrySchema.extend({
  faults: z.array(z.object({ path: z.string(), message: z.string(), example: z.string() })),
  /** On a conflict: the row as the server has it. */
  current: z.unknown().optional(),
});
export type Refused = z.infer<typeof refusedSchema>;

interface Shape extends DBSchema {
  queue: { key: number; value: Omit<Entry, 'key'> & { key?: number } };
  refused: { key: number; value: Refused };
  /** The last version of a row that the server told: what a later change in the line builds on. */
  versions: { key: string; value: number };
}

const known = <S extends z.ZodType>(rows: readonly unknown[], schema: S): z.output<S>[] =>
  rows.flatMap((row) => {
    const parsed = schema.safeParse(row);
    return parsed.success ? [parsed.data] : [];
  });

/** The line of writes in the browser's own database: one for all tabs. */
export class OutboxStore {
  private constructor(private readonly database: IDBPDatabase<Shape>) {}

  static async open(name: string): Promise<OutboxStore> {
    const database = await openDB<Shape>(name, 1, {
      upgrade: (fresh) => {
        fresh.createObjectStore('queue', { keyPath: 'key', autoIncrement: true });
        fresh.createObjectStore('refused', { keyPath: 'key' });
        fresh.createObjectStore('versions');
      },
    });
    return new OutboxStore(database);
  }

  async queue(): Promise<Entry[]> {
    return known(await this.database.getAll('queue'), entrySchema);
  }

  async refused(): Promise<Refused[]> {
    return known(await this.database.getAll('refused'), refusedSchema);
  }

  async add(entry: Omit<Entry, 'key'>): Promise<void> {
    await this.database.add('queue', entry);
  }

  /** Put a write in the line unless it stands there already. */
  async adopt(entry: Omit<Entry, 'key'>): Promise<void> {
    const change = this.database.transaction('queue', 'readwrite');
    const there = (await change.store.getAll()).some(({ token }) => token === entry.token);
    if (!there) await change.store.add(entry);
    await change.done;
  }

  async version(id: string): Promise<number | undefined> {
    return this.database.get('versions', id);
  }

  /** The server has taken it. */
  async done({ key, id }: Entry, version: number | undefined): Promise<void> {
    const change = this.database.transaction(['queue', 'versions'], 'readwrite');
    await change.objectStore('queue').delete(key);
    if (version !== undefined) await change.objectStore('versions').put(version, id);
    await change.done;
  }

  /** The server will not take it: out of the line, kept aside. */
  async refuse(refused: Refused): Promise<void> {
    const change = this.database.transaction(['queue', 'refused'], 'readwrite');
    await change.objectStore('queue').delete(refused.key);
    await change.objectStore('refused').put(refused);
    await change.done;
  }

  async dropRefused(key: number): Promise<void> {
    await this.database.delete('refused', key);
  }

  close(): void {
    this.database.close();
  }
}
