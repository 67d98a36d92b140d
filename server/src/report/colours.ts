/** Colours of paper: those of the screens, as ink on white. */
export const INK = '#16191d';
export const SOFT = '#565b62';
export const LINE = '#c9c7c0';
export const EDGE = '#8a918f';
export const BLUE = '#2452a0';
export const RED = '#c23b16';
