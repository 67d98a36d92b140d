const DAY = /^\d{4}-\d{2}-\d{2}$/;

/** Whether a text is a day as it is typed: 2026-12-24. */
export const isDay = (typed: string): boolean => DAY.test(typed);

/** An amount as it is typed, with a point or a comma: hours, a price. Undefined where it is none, or below nothing. */
export function amountTyped(typed: string): number | undefined {
  const text = typed.trim();
  const amount = text ? Number(text.replace(',', '.')) : NaN;
  return Number.isFinite(amount) && amount >= 0 ? amount : undefined;
}
