import {
  CHECKS,
  DIMENSIONS,
  LIMITS_FORMAT,
  prettyUnit,
  shownIn,
  type Dimension,
  type LimitLine,
  type LimitSheet,
  type QuantityInfo,
  type UnitSystem,
} from '@isometra/core';
import * as z from 'zod';

/** One line of a limit sheet as it is being typed; `over` and `least`: the length that the zone is stated for, and the least it may be. */
export const lineDraftSchema = z.object({
  check: z.string(),
  quantity: z.string(),
  when: z.string(),
  low: z.string(),
  high: z.string(),
  over: z.string(),
  least: z.string(),
  aim: z.string(),
  reason: z.string(),
});
export type LineDraft = z.infer<typeof lineDraftSchema>;

export type LineField = Exclude<keyof LineDraft, 'check' | 'quantity' | 'when'>;

/** A value as a person would type it: in the unit shown, with no more figures than it has. */
export function asTyped(value: number | null | undefined, dimension: Dimension, system: UnitSystem): string {
  if (value === null || value === undefined) return '';
  const { unit } = shownIn(dimension, system, 'coarse');
  const shown = value / DIMENSIONS[dimension].factors[unit.toLowerCase()];
  return `${Number(shown.toPrecision(system === 'inch' ? 3 : 6))} ${prettyUnit(unit)}`;
}

export const infoOf = ({ check, quantity }: Pick<LineDraft, 'check' | 'quantity'>): QuantityInfo =>
  CHECKS.get(check)?.quantities[quantity] as QuantityInfo;

function lineDraft(line: LimitLine, system: UnitSystem): LineDraft {
  const { dimension } = infoOf(line);
  const text = (value: number | null | undefined) => asTyped(value, dimension, system);
  return {
    check: line.check,
    quantity: line.quantity,
    when: line.when ?? '',
    low: text(line.zone[0]),
    high: text(line.zone[1]),
    over: asTyped(line.over?.length, 'length', system),
    least: text(line.over?.least),
    aim: text(line.aim),
    reason: line.reason ?? '',
  };
}

/** A sheet with every figure written out in the units shown. */
export const draftOf = (sheet: LimitSheet, system: UnitSystem): LineDraft[] => sheet.lines.map((line) => lineDraft(line, system));

/**
 * What was typed, as a file would have it; the core reads it and names what is wrong. A figure that nobody touched is the one that the
 * sheet had, not the rounded one that was shown.
 *
 * @param from the sheet that the lines were drawn from.
 */
export function rawSheet(name: string, lines: readonly LineDraft[], from?: LimitSheet): unknown {
  const shown = (['mm', 'inch'] as const).map((system) => from?.lines.map((line) => lineDraft(line, system)));
  return {
    format: LIMITS_FORMAT,
    name,
    lines: lines.map((line, i) => {
      const { check, quantity, when, low, high, over, least, aim, reason } = line;
      const own = from?.lines[i];
      const { length, least: shortest } = own?.over ?? {};
      const figure = (field: LineField, exact: number | null | undefined): string | number | null =>
        typeof exact === 'number' && shown.some((drafts) => drafts?.[i]?.[field] === line[field]) ? exact : line[field] || null;
      return {
        check,
        quantity,
        ...(when && { when }),
        zone: [low && figure('low', own?.zone[0]), high && figure('high', own?.zone[1])].map((bound) => (bound === '' ? null : bound)),
        ...(over && { over: { length: figure('over', length), ...(least && { least: figure('least', shortest) }) } }),
        ...(aim && { aim: figure('aim', own?.aim) }),
        ...(reason && { reason }),
      };
    }),
  };
}

/** The field of a line that a fault is about. */
export function fieldOf(path: string): { readonly line: number; readonly field: LineField } | undefined {
  const found = /^lines\[(\d+)\]\.?(.*)$/.exec(path);
  if (!found) return undefined;
  const fields: Readonly<Record<string, LineField>> = {
    'zone[1]': 'high',
    'over.length': 'over',
    over: 'over',
    'over.least': 'least',
    aim: 'aim',
    reason: 'reason',
  };
  return { line: Number(found[1]), field: fields[found[2]] ?? 'low' };
}

/** A sheet with some lines put in: those of the same quantity are replaced, others follow. */
export function withLines(sheet: LimitSheet, lines: readonly LimitLine[]): LimitSheet {
  const same = (a: LimitLine, b: LimitLine) => a.check === b.check && a.quantity === b.quantity && a.when === b.when;
  const kept = sheet.lines.map((line) => lines.find((other) => same(line, other)) ?? line);
  return { ...sheet, lines: [...kept, ...lines.filter((line) => !sheet.lines.some((other) => same(line, other)))] };
}
