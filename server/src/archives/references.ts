import { Op, type Transaction } from 'sequelize';
import { FaultError, type Fault } from '@isometra/core';
import { LimitVersionRow } from '../db/shopModels.js';
import type { Content } from './files.js';
import { KEEPING, pathOf, type ThingKind } from './things.js';

/** What a file leans on, by kind and key. */
interface Leaning {
  readonly kind: ThingKind | 'limit version';
  readonly key: string;
}

interface Pictured {
  readonly pictures?: readonly { readonly hash: string }[];
}

const of = (kind: Leaning['kind'], key: unknown): Leaning[] => (typeof key === 'string' ? [{ kind, key }] : []);

/** Everything that a file of some kind leans on. */
function leaningsOf(kind: string, content: Content): Leaning[] {
  const pictures = ((content as Pictured).pictures ?? []).flatMap(({ hash }) => of('pictures', hash));
  return [
    ...(kind === 'machines' ? [] : of('machines', content['machineId'])),
    ...(kind === 'surveys' ? [] : of('surveys', content['surveyId'])),
    ...of('rounds', content['roundId']),
    ...of('strip-downs', content['stripDownId']),
    ...of('limit version', content['limitVersionId']),
    ...(kind === 'remarks' ? of('remarks', content['supersedes']) : []),
    ...pictures,
  ];
}

const ONE: Readonly<Partial<Record<Leaning['kind'], string>>> = {
  machines: 'machine',
  surveys: 'survey',
  rounds: 'round',
  'strip-downs': 'strip-down',
  'limit version': 'version of a limit sheet',
  remarks: 'note',
  pictures: 'photograph',
};

/** Gathers what the files of an archive lean on, and says what of it is neither in the archive nor in the shop. */
export class References {
  private readonly inArchive = new Set<string>();
  /** By kind: the key, and the first file that leans on it. */
  private readonly wanted = new Map<Leaning['kind'], Map<string, string>>();

  /** @param paths of all files of the archive. */
  constructor(paths: readonly string[]) {
    for (const path of paths) this.inArchive.add(path);
  }

  /** Look at a file. */
  read(kind: string, path: string, content: Content): void {
    if (kind === 'limits')
      for (const { id } of content['versions'] as readonly { readonly id: string }[]) this.inArchive.add(`limit version/${id}`);
    for (const leaning of leaningsOf(kind, content)) {
      const known = this.wanted.get(leaning.kind) ?? new Map<string, string>();
      if (!known.has(leaning.key)) known.set(leaning.key, path);
      this.wanted.set(leaning.kind, known);
    }
  }

  private has({ kind, key }: Leaning): boolean {
    return this.inArchive.has(kind === 'limit version' ? `limit version/${key}` : pathOf(kind, key));
  }

  /** @throws FaultError that names the files whose things are missing. */
  async refuseMissing(transaction: Transaction): Promise<void> {
    const faults: Fault[] = [];
    for (const [kind, keys] of this.wanted) {
      const missing = [...keys].filter(([key]) => !this.has({ kind, key }));
      const here = await inShop(
        kind,
        missing.map(([key]) => key),
        transaction,
      );
      for (const [key, path] of missing)
        if (!here.has(key))
          faults.push({
            path,
            message: `leans on a ${ONE[kind] ?? kind} that is neither in the archive nor in this shop: ${key}`,
            example: 'an archive of the whole machine',
          });
    }
    if (faults.length) throw new FaultError(faults.slice(0, 20));
  }
}

async function inShop(kind: Leaning['kind'], keys: readonly string[], transaction: Transaction): Promise<ReadonlySet<string>> {
  const found = new Set<string>();
  const [model, key] = kind === 'limit version' ? [LimitVersionRow, 'id'] : [KEEPING[kind].model, KEEPING[kind].key];
  for (let i = 0; i < keys.length; i += 1000) {
    const rows = await model.findAll({ where: { [key]: { [Op.in]: keys.slice(i, i + 1000) } }, attributes: [key], transaction });
    for (const row of rows) found.add(String(row.get(key)));
  }
  return found;
}
