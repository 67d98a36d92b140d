import { v4 } from 'uuid';

/** A new id. A browser has its own only on a page that it holds for safe, which one of the shop's network is not to a phone. */
export const newId = (): string => v4();
