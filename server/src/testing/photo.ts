import { withCameraMarks } from '@isometra/core/practice';
import { jpegOf } from '../services/jpeg.js';

/** A JPEG of grey grain, with what a camera writes beside it where that is asked for. */
export async function encodePhoto(width: number, height: number, { noise = 0, orientation = 1, place = '' } = {}): Promise<Uint8Array> {
  const data = new Uint8ClampedArray(4 * width * height);
  for (let i = 0; i < data.length; i++) data[i] = i % 4 === 3 ? 255 : 140 + noise * (((i * 7919) % 97) / 97 - 0.5) * 2;
  const jpeg = await jpegOf({ data, width, height }, noise ? 98 : 90);
  if (!place) return jpeg;
  return withCameraMarks(jpeg, orientation, place);
}
