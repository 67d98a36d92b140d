/** Stands at every check: hands and indicators are near what turns. */
export const ISOLATE = 'Isolate and lock out the machine before hands go inside. Never power a spindle with an indicator or bar set up.';
export const BY_HAND = 'Turn the spindle by hand.';
export const RATED_GEAR = 'Headstocks, columns and chucks are lifted with rated gear, never by hand over an edge.';
export const HEAD_SWINGS = 'A head swings when the last bolt lets go: loosen to snug, never free.';
export const POWERED = 'Drives at minimum feed and hands clear; isolate before hands go in.';
