import { FaultError, type Fault } from '@isometra/core';
import { cleanPicture, pictureFacts, type PictureFacts } from '@isometra/core/print';
import { decodePicture, decodersFrom } from '@isometra/core/print-files';
import { fileOf, jpegOf } from '../services/jpeg.js';

export type Cleaned =
  | { readonly value: Pick<PictureFacts, 'type' | 'width' | 'height'> & { readonly bytes: Uint8Array } }
  | { readonly faults: readonly Fault[] };

const QUALITY = 92;

/**
 * A JPEG that was not held upright is drawn anew the way it is looked at; what is upright keeps its own bytes, once it has been read: a
 * header with garbage behind it is no picture.
 */
async function upright(bytes: Uint8Array, { orientation }: PictureFacts): Promise<Uint8Array> {
  const pixels = await decodePicture(bytes, decodersFrom(fileOf));
  return orientation === 1 ? bytes : jpegOf(pixels, QUALITY);
}

/** A picture as it is kept: upright, and without what the camera wrote beside it. */
export async function clean(raw: Uint8Array): Promise<Cleaned> {
  try {
    const bytes = new Uint8Array(raw);
    const facts = pictureFacts(bytes);
    const { type, width, height } = facts;
    return { value: { type, width, height, bytes: cleanPicture(await upright(bytes, facts)) } };
  } catch (error) {
    if (error instanceof FaultError) return { faults: error.faults };
    throw error;
  }
}
