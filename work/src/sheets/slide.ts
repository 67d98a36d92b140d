import { parseQuantity } from '@isometra/core';

/**
 * How a slide leans by its card, as typed or as read: degrees, + its rear end the higher; undefined where the card does not tell.
 */
export function slantOf(slide: unknown): number | undefined {
  const { rises, degrees } = (slide ?? {}) as { readonly rises?: string; readonly degrees?: unknown };
  if (rises === 'flat') return 0;
  const told = parseQuantity(degrees, 'angle');
  return told.ok && rises !== undefined ? (rises === 'operator' ? -1 : 1) * told.value : undefined;
}
