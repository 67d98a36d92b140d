import { jpegOf } from '../services/jpeg.js';

/** A JPEG of grey grain, with what a camera writes beside it where that is asked for. */
export async function encodePhoto(width: number, height: number, { noise = 0, orientation = 1, place = '' } = {}): Promise<Uint8Array> {
  const data = new Uint8ClampedArray(4 * width * height);
  for (let i = 0; i < data.length; i++) data[i] = i % 4 === 3 ? 255 : 140 + noise * (((i * 7919) % 97) / 97 - 0.5) * 2;
  const jpeg = await jpegOf({ data, width, height }, noise ? 98 : 90);
  if (!place) return jpeg;
  const exif = [
    0x45,
    0x78,
    0x69,
    0x66,
    0,
    0,
    0x4d,
    0x4d,
    0,
    42,
    0,
    0,
    0,
    8,
    0,
    1,
    0x01,
    0x12,
    0,
    3,
    0,
    0,
    0,
    1,
    0,
    orientation,
    0,
    0,
    0,
    0,
    0,
    0,
  ];
  const part = (letter: number, content: readonly number[]) => [0xff, letter, 0, content.length + 2, ...content];
  return Uint8Array.from([0xff, 0xd8, ...part(0xe1, exif), ...part(0xfe, [...new TextEncoder().encode(place)]), ...jpeg.slice(2)]);
}
