import { imageSize } from 'image-size';
import { FaultError } from '../../input/faults.js';

/** Most that is read: what a picture costs to decode is known before it is. */
export const MOST_PIXELS = 24_000_000;
/** Most that is kept. */
export const MOST_BYTES = 15_000_000;

/** What a picture is, told by its content and never by its name. */
export interface PictureFacts {
  readonly type: 'png' | 'jpeg';
  /** As it is looked at: the way it was held is taken into account. */
  readonly width: number;
  readonly height: number;
  /** How the camera was held, 1 (upright) to 8; only a JPEG tells. */
  readonly orientation: number;
}

const EXAMPLE = 'a PNG or JPEG photograph of up to 24 megapixels and 15 MB';
const refuse = (message: string): never => {
  throw new FaultError([{ path: 'photo', message, example: EXAMPLE }]);
};

const TYPES: Readonly<Partial<Record<string, PictureFacts['type']>>> = { png: 'png', jpg: 'jpeg' };

/** Whether a turned picture lies on its side. */
const onItsSide = (orientation: number): boolean => orientation >= 5;

/**
 * What a picture is: its type, size and the way the camera was held.
 *
 * @throws FaultError at `photo` for what is no picture, is neither PNG nor JPEG, or is larger than is read.
 */
export function pictureFacts(bytes: Uint8Array): PictureFacts {
  if (bytes.length === 0) refuse('is empty');
  let told: { readonly width: number; readonly height: number; readonly orientation?: number; readonly type?: string };
  try {
    told = imageSize(bytes);
  } catch {
    return refuse('is no picture that can be read');
  }
  const type = TYPES[told.type ?? ''];
  if (!type)
    return refuse(
      `is a picture of a kind that is not read (${told.type ?? 'unknown'}). Set the camera to JPEG, often called “most compatible”, and take it again; or send it to yourself, which makes a JPEG of it on most phones`,
    );
  const { width, height } = told;
  if (!(width > 0 && height > 0)) return refuse('has no size');
  if (width * height > MOST_PIXELS) return refuse(`has ${Math.round((width * height) / 1e6)} megapixels, more than 24`);
  const orientation =
    type === 'jpeg' && told.orientation !== undefined && told.orientation >= 1 && told.orientation <= 8 ? told.orientation : 1;
  return onItsSide(orientation) ? { type, width: height, height: width, orientation } : { type, width, height, orientation };
}

/** Parts of a JPEG: 0xFF and a letter, a length of two bytes with itself, the content. */
function jpegWithout(bytes: Uint8Array): Uint8Array {
  const kept: Uint8Array[] = [bytes.subarray(0, 2)];
  for (let at = 2; at + 4 <= bytes.length && bytes[at] === 0xff;) {
    const letter = bytes[at + 1];
    // Here the picture itself begins: what follows is kept as it is, up to its end and not beyond.
    if (letter === 0xda) {
      kept.push(bytes.subarray(at, endOfJpeg(bytes, at)));
      return joined(kept);
    }
    const next = at + 2 + ((bytes[at + 2] << 8) | bytes[at + 3]);
    // What an application wrote beside the picture, and comments; the two that tell how its colours are meant stay.
    const told = (letter >= 0xe1 && letter <= 0xef && letter !== 0xee) || letter === 0xfe;
    if (!told) kept.push(bytes.subarray(at, next));
    at = next;
  }
  return refuse('is a JPEG that breaks off before its picture begins');
}

/** Behind its end mark a file may carry anything: a film, a second picture, where it was taken. */
function endOfJpeg(bytes: Uint8Array, from: number): number {
  for (let at = from; at + 1 < bytes.length; at++) if (bytes[at] === 0xff && bytes[at + 1] === 0xd9) return at + 2;
  return bytes.length;
}

const PNG_KEPT: ReadonlySet<string> = new Set(['IHDR', 'PLTE', 'tRNS', 'IDAT', 'IEND', 'gAMA', 'sRGB', 'cHRM', 'sBIT', 'bKGD']);

/** Parts of a PNG: a length of four bytes, four letters, the content, a sum of four bytes. */
function pngWithout(bytes: Uint8Array): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const kept: Uint8Array[] = [bytes.subarray(0, 8)];
  for (let at = 8; at + 12 <= bytes.length;) {
    const next = at + 12 + view.getUint32(at);
    const letters = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (next > bytes.length) break;
    if (PNG_KEPT.has(letters)) kept.push(bytes.subarray(at, next));
    if (letters === 'IEND') return joined(kept);
    at = next;
  }
  return refuse('is a PNG that breaks off before its end');
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

/**
 * A picture without what the camera wrote beside it: where and when it was taken, by which camera, small copies of it, what
 * hangs behind its end. Clean bytes come back as they are, so that their sum is their name.
 *
 * The way the camera was held goes too: a picture whose orientation is not 1 must be turned before.
 *
 * @throws FaultError at `photo`, as `pictureFacts`.
 */
export function cleanPicture(bytes: Uint8Array): Uint8Array {
  if (bytes.length > MOST_BYTES) refuse(`has ${(bytes.length / 1e6).toFixed(1)} MB, more than 15`);
  return pictureFacts(bytes).type === 'png' ? pngWithout(bytes) : jpegWithout(bytes);
}
