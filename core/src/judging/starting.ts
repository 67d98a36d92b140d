import type { Zone } from './verdict.js';
import { CHECKS } from '../checks/registry.js';
import { LIMITS_FORMAT, limitable, type LimitLine, type LimitSheet } from './limitSheet.js';

/** Sheets to start from, by how they compare with the catalogue. */
export const STARTING_SHEETS = [
  { id: 'general', name: 'General shop', factor: 1, about: 'The starting values of a jobbing shop.' },
  { id: 'toolroom', name: 'Toolroom', factor: 0.5, about: 'Half the zones of the general shop.' },
  { id: 'light-bench', name: 'Light bench machine', factor: 2, about: 'Twice the zones of the general shop, for light machines.' },
] as const;

export type StartingSheet = (typeof STARTING_SHEETS)[number]['id'];

const scaled = ([low, high]: Zone, factor: number): Zone => [low === null ? null : low * factor, high === null ? null : high * factor];

/** A starting sheet written out, a line for every zone of the catalogue. */
export function startingSheet(id: StartingSheet): LimitSheet {
  const { name, factor } = STARTING_SHEETS.find((entry) => entry.id === id) as (typeof STARTING_SHEETS)[number];
  const lines = [...CHECKS.values()].flatMap((check) =>
    limitable(check).flatMap(([quantity, { limit, over, aim, variants = [] }]): LimitLine[] => {
      const line = { check: check.id, quantity };
      return [
        {
          ...line,
          zone: scaled(limit as Zone, factor),
          ...(over && { over: { ...over, ...(over.least !== undefined && { least: over.least * factor }) } }),
          ...(aim !== undefined && { aim: aim * factor, reason: 'wears down' }),
        },
        ...variants.map((variant) => ({ ...line, when: variant.key, zone: scaled(variant.limit, factor) })),
      ];
    }),
  );
  return { format: LIMITS_FORMAT, name, lines };
}
