import { optionalNumber, type FieldInfo } from '@isometra/core';

/** The highest price that is taken. */
export const MOST_PRICE = 10_000_000;

/** A price in the currency of the shop. */
export const priceSchema = (info: FieldInfo) => optionalNumber({ example: '48', min: 0, max: MOST_PRICE, ...info });
