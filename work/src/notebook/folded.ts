/** Letters without what stands over them, in lower case: what is typed in a hurry finds it. */
export const folded = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
