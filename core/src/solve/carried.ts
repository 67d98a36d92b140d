/** How far a result may be carried beyond its base: beyond the first a note says so, beyond the second there is no verdict. */
export const FAR = 4;
export const FARTHEST = 10;
