import * as z from 'zod';
import { fieldRegistry } from '../input/fields.js';
import { bare, figure, listOf } from './answer.js';

/** What re-entering a stored offset answers: values in the unit of the control. Source: docs/methods/turning.md. */
export const registerAnswer = z.object({
  change: bare('Size of the change'),
  plus: bare('The old value and the change'),
  minus: bare('The old value less the change'),
  chosen: bare('The one of the two to enter; null as long as the sign is not known').nullable(),
  ifWrong: figure('deviation', 'Total reading after it, should the sign be wrong'),
  asks: listOf(z.string(), 'What has to be made sure of before it is entered').optional(),
  ratio: bare('Total reading after it, over the one before').nullish(),
  meaning: z.string().optional().register(fieldRegistry, { label: 'What the ratio says' }),
  meanings: listOf(z.string(), 'Everything that it may mean within the doubt of the readings').optional(),
  apart: z.string().optional().register(fieldRegistry, { label: 'What tells them apart' }),
  next: bare('The value to enter next, from the old one; null where two meanings fit').nullish(),
});
