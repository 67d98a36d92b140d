import * as z from 'zod';

/** The way a thing is out, or a stylus stands: toward and away from the operator, and the rest of the compass. */
export const waySchema = z.enum(['toward', 'away', 'left', 'right', 'up', 'down']);
