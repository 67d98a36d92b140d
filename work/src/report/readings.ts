import { CHECKS, placeWords, saysWhole, sentence, sizesIn } from '@isometra/core';
import type { StoredRound } from '@isometra/contract';
import { placeKeysOf, placeOf } from '../notebook/keyOf.js';
import { readingTold } from '../sheets/sheet.js';
import type { Block, TableRow } from './blocks.js';
import { factsOf } from './factsOf.js';
import { plannedSlots } from '../sheets/slots.js';
import type { NumberedPlaces } from './method.js';
import type { Pen, ToldRound } from './pen.js';

function readingRows(
  { round }: ToldRound,
  places: NumberedPlaces,
  pen: Pen,
): { readonly standing: TableRow[]; readonly history: TableRow[] } {
  const definition = CHECKS.get(round.check);
  const replaced = new Map(round.readings.flatMap((reading) => (reading.supersedes ? [[reading.supersedes, reading] as const] : [])));
  const named = new Map(definition && plannedSlots(round).map(({ keys, label }) => [placeOf(definition, keys), label]));
  const factsIn = (keys: Readonly<Record<string, unknown>>): string[] =>
    factsOf(definition?.reading, keys).map(([name, value]) => `${name} ${value}`);
  const placeIn = (keys: StoredRound['readings'][number]['keys']): string => {
    const label = definition && named.get(placeOf(definition, keys));
    if (!definition || (label === undefined && !saysWhole(keys, definition.slotKeys))) return factsIn(keys).join(', ');
    const own = placeKeysOf(definition);
    const beside = factsIn(Object.fromEntries(Object.entries(keys).filter(([key]) => !own.has(key))));
    const words = pen.figure(({ system }) => {
      const size = sizesIn({ system, fineness: 'coarse' });
      if (label === undefined) return placeWords(keys, definition.slotKeys, size);
      const told = sentence(label, size);
      // "near the headstock" is how it is asked for; what was read stands where it was read.
      return typeof keys['at'] === 'number' && !/\d/.test(told) ? `${told}, ${size(keys['at'], 'length')}` : told;
    });
    return [words, ...beside].join(', ');
  };
  const row = (reading: StoredRound['readings'][number]): string[] => {
    const beside = new Set((definition?.beside ?? []).filter(({ instead }) => instead).map(({ key }) => key));
    const keys = Object.fromEntries(Object.entries(reading.keys).filter(([key]) => !beside.has(key)));
    return [
      placeIn(keys),
      readingTold(round.check, reading),
      reading.set > 1 ? String(reading.set) : '1',
      `${reading.by}, ${pen.time(reading.at)}`,
    ];
  };
  const standing = round.readings.filter(({ id, value, keys }) => !replaced.has(id) && (value !== null || Object.keys(keys).length > 0));
  return {
    standing: standing
      .filter((reading) => readingTold(round.check, reading) !== '')
      .map((reading) => ({ cells: [String(places.numberOf(reading.keys)), ...row(reading)] })),
    history: round.readings
      .filter(({ id }) => replaced.has(id))
      .map((reading) => ({ struck: true, cells: [...row(reading).slice(0, 2), replaced.get(reading.id)?.why ?? ''] })),
  };
}

/** The readings that count, numbered by their places, and apart from them those that were replaced, with the reasons. */
export function readingTables(told: ToldRound, places: NumberedPlaces, pen: Pen): Block[] {
  const { standing, history } = readingRows(told, places, pen);
  return [
    ...(standing.length
      ? [
          {
            kind: 'table',
            name: 'Readings',
            columns: ['No.', 'Place', 'Read', 'Set-up', 'Who and when'],
            widths: [6, 38, 18, 10, 28],
            rows: standing,
          } as const,
        ]
      : []),
    ...(history.length
      ? [
          {
            kind: 'table',
            name: 'Readings that were replaced',
            columns: ['Replaced', 'Read', 'Why'],
            widths: [42, 18, 40],
            rows: history,
          } as const,
        ]
      : []),
  ];
}
