import * as z from 'zod';
import { fieldRegistry } from '../input/fields.js';
import type { Dimension } from '../units/dimensions.js';

/** A figure that a move works out, in the base unit of its dimension. */
export const figure = (dimension: Dimension, label: string): z.ZodNumber => z.number().register(fieldRegistry, { label, dimension });

/** A figure without a unit. */
export const bare = (label: string): z.ZodNumber => z.number().register(fieldRegistry, { label });

/** A figure that may be missing. */
export const maybe = (dimension: Dimension, label: string): z.ZodOptional<z.ZodNumber> => figure(dimension, label).optional();

/** Figures that belong together. */
export const groupOf = <Shape extends z.ZodRawShape>(shape: Shape, label: string): z.ZodObject<Shape> =>
  z.object(shape).register(fieldRegistry, { label });

/** Figures in an order that says what they are. */
export const listOf = <Item extends z.ZodType>(item: Item, label: string): z.ZodReadonly<z.ZodArray<Item>> =>
  z.array(item).readonly().register(fieldRegistry, { label });
