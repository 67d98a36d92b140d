import { parseQuantity } from '@isometra/core';

/**
 * How a slide leans by its card, as typed or as read: degrees, + its rear end the higher.
 *
 * @param usual degrees where the card tells none; undefined where nothing may be taken for granted.
 */
export function slantOf(slide: unknown, usual?: number): number | undefined {
  const { rises, degrees } = (slide ?? {}) as { readonly rises?: string; readonly degrees?: unknown };
  if (rises === 'flat') return 0;
  const told = parseQuantity(degrees, 'angle');
  const size = told.ok ? told.value : usual;
  if (size === undefined || (rises === undefined && usual === undefined)) return undefined;
  return (rises === 'operator' ? -1 : 1) * size;
}
