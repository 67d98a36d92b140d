import * as z from 'zod';
import { pictureNameSchema, whoSchema } from './common.js';

/** Whether the calendar of this program knows a time zone. */
function isZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

/** The name of a time zone, as browsers tell it. */
export const timeZoneSchema = z
  .string({ error: (issue) => (issue.input === undefined ? 'is missing: give a time zone' : 'must be a text') })
  .max(60, { error: 'must have at most 60 characters' })
  .refine(isZone, { error: 'is no time zone that is known here: give one like Europe/Lisbon' });

/** The zone that the first browser of a shop is in: it counts until somebody chooses one. */
export const firstBrowserSchema = z.strictObject({ timeZone: timeZoneSchema });

/** What a person settles for the whole shop. */
export const shopWriteSchema = z.strictObject({ timeZone: timeZoneSchema, by: whoSchema });

/** What is settled for the whole shop. */
export const shopSchema = z.object({
  /** In whose days and evenings it thinks; null until a browser has told it. */
  timeZone: z.string().nullable(),
  /** Who chose it; null where it was taken from the first browser. */
  chosenBy: z.string().nullable(),
});
export type Shop = z.infer<typeof shopSchema>;

/** A phone or tablet that was let in from the network. */
export const deviceSchema = z.object({ id: z.string(), name: z.string(), pairedAt: z.string(), seenAt: z.string() });
export type Device = z.infer<typeof deviceSchema>;

/** A code that lets one device in, and until when. */
export const pairingCodeSchema = z.object({ code: z.string(), until: z.string() });
export type PairingCode = z.infer<typeof pairingCodeSchema>;

/** Whether devices of the network are let in, where they find the shop, and the same as a picture to be photographed (SVG). */
export const lanSchema = z.object({ on: z.boolean(), address: z.string(), picture: z.string() });
export type Lan = z.infer<typeof lanSchema>;

/** What is told of the shop on its page. Kept apart from what reads it, so that the first page loads little. */
export const shopCardShape = {
  /** As typed. */
  card: z.record(z.string(), z.unknown(), { error: 'must be an object' }),
  /** The mark of the shop on paper: a picture that was sent before. */
  mark: pictureNameSchema.nullable(),
};
export const storedShopCardSchema = z.object({ ...shopCardShape, version: z.int() });
export type StoredShopCard = z.infer<typeof storedShopCardSchema>;

/** Its states are kept under this id: there is one shop. */
export const SHOP_ID = '00000000-0000-4000-8000-000000000000';
