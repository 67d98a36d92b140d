import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import encodeJpeg, { init as initEncoder } from '@jsquash/jpeg/encode.js';
import encodePng, { init as initPng } from '@jsquash/png/encode.js';
import { decodersFrom } from '../scraping/print/decode.js';
import type { Pixels } from '../scraping/print/index.js';

const bytesOf = (file: string): Promise<Uint8Array> => readFile(fileURLToPath(import.meta.resolve(file)));
const { WebAssembly } = globalThis as unknown as { readonly WebAssembly: { compile(bytes: Uint8Array): Promise<never> } };
const compiled = async (file: string) => WebAssembly.compile(await bytesOf(file));

/** The decoders as Node finds them. */
export const DECODERS = decodersFrom(bytesOf);

/** A PNG file of some pixels. */
export const asPng = async ({ data, width, height }: Pixels): Promise<Uint8Array> => {
  await initPng(await compiled('@jsquash/png/codec/pkg/squoosh_png_bg.wasm'));
  return new Uint8Array(await encodePng({ data: new Uint8ClampedArray(data), width, height } as never));
};

/** A JPEG file of some pixels. */
export const asJpeg = async ({ data, width, height }: Pixels): Promise<Uint8Array> => {
  await initEncoder(await compiled('@jsquash/jpeg/codec/enc/mozjpeg_enc.wasm'));
  return new Uint8Array(await encodeJpeg({ data: new Uint8ClampedArray(data), width, height } as never, { quality: 88 }));
};
