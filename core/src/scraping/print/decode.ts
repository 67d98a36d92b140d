import decodeJpeg, { init as initJpeg } from '@jsquash/jpeg/decode.js';
import decodePng, { init as initPng } from '@jsquash/png/decode.js';
import { FaultError } from '../../input/faults.js';
import type { Pixels } from './frame.js';
import { pictureFacts } from './picture.js';

/** A module of a decoder, compiled; who calls knows where its file lies. */
type Compiled = Parameters<typeof initJpeg>[0];
export type Decoders = Readonly<Record<'png' | 'jpeg', () => Promise<NonNullable<Compiled>>>>;

const FILES = { jpeg: '@jsquash/jpeg/codec/dec/mozjpeg_dec.wasm', png: '@jsquash/png/codec/pkg/squoosh_png_bg.wasm' } as const;

/** What every place that runs this has, and no library of types for all of them tells. */
declare const WebAssembly: { compile(bytes: Uint8Array): Promise<NonNullable<Compiled>> };

/** The decoders, by how a file of theirs is read: the name that its package gives it in, its bytes out. */
export function decodersFrom(read: (file: string) => Promise<Uint8Array>): Decoders {
  const compiled = (file: string) => async () => WebAssembly.compile(await read(file));
  return { jpeg: compiled(FILES.jpeg), png: compiled(FILES.png) };
}

/** What the decoders hand their picture over in; a browser has it, a server has not. */
class Sheet {
  constructor(
    readonly data: Uint8ClampedArray,
    readonly width: number,
    readonly height: number,
  ) {}
}

/** Where a pixel of the turned picture stood before: the eight ways a camera is held. */
const TURNED: Readonly<Record<number, (x: number, y: number, w: number, h: number) => readonly [number, number]>> = {
  2: (x, y, w) => [w - 1 - x, y],
  3: (x, y, w, h) => [w - 1 - x, h - 1 - y],
  4: (x, y, _w, h) => [x, h - 1 - y],
  5: (x, y) => [y, x],
  6: (x, y, _w, h) => [y, h - 1 - x],
  7: (x, y, w, h) => [w - 1 - y, h - 1 - x],
  8: (x, y, w) => [w - 1 - y, x],
};

/** A picture turned the way it was held; 1 is as it is. */
export function upright({ width, height, data }: Pixels, orientation: number): Pixels {
  const from = TURNED[orientation];
  if (!from) return { width, height, data };
  const [w, h] = orientation >= 5 ? [height, width] : [width, height];
  const [source, turned] = [new Uint32Array(data.buffer, data.byteOffset, width * height), new Uint32Array(w * h)];
  for (let y = 0, i = 0; y < h; y++)
    for (let x = 0; x < w; x++, i++) {
      const [u, v] = from(x, y, width, height);
      turned[i] = source[v * width + u];
    }
  return { width: w, height: h, data: new Uint8Array(turned.buffer) };
}

/**
 * The pixels of a PNG or JPEG, the way it is looked at.
 *
 * @param decoders where the compiled decoders are got; the one that is needed is asked for.
 * @throws FaultError at `photo` for what cannot be read.
 */
export async function decodePicture(bytes: Uint8Array, decoders: Decoders): Promise<Pixels> {
  const { type, orientation } = pictureFacts(bytes);
  const place = globalThis as { ImageData?: unknown };
  place.ImageData ??= Sheet;
  const whole = bytes.slice().buffer;
  try {
    if (type === 'png') {
      await initPng(await decoders.png());
      const { width, height, data } = await decodePng(whole);
      return { width, height, data };
    }
    await initJpeg(await decoders.jpeg());
    const { width, height, data } = await decodeJpeg(whole, { preserveOrientation: false });
    return upright({ width, height, data }, orientation);
  } catch {
    throw new FaultError([{ path: 'photo', message: 'is damaged: its picture cannot be read', example: 'a whole PNG or JPEG file' }]);
  }
}
