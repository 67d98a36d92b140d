/** Standard deviation, µm of the readings, of a bar or a centre put back into a wiped taper or between centres. */
export const RESEATED = 1.5;
