import { optionalNumber, type FieldInfo } from '@isometra/core';
import { MOST_PRICE } from './common.js';

/** A price in the currency of the shop. */
export const priceSchema = (info: FieldInfo) => optionalNumber({ example: '48', min: 0, max: MOST_PRICE, ...info });
