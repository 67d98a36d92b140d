/** A clock may be so much ahead of the server's before it is asked about, ms. */
const ROOM = 5 * 60_000;

/** Whether a time lies beyond the server's own. */
export const isAhead = (at: string): boolean => Date.parse(at) > Date.now() + ROOM;

/**
 * When something was done, as far as that can be: a clock that is ahead is not believed, because what it dates would come after
 * all that follows it.
 */
export const atMostNow = (at: string): Date => (isAhead(at) ? new Date() : new Date(at));
