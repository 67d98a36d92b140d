import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import encodeJpeg, { init } from '@jsquash/jpeg/encode.js';
import type { Pixels } from '@isometra/core/print';

/** The bytes of a file by the name that its package gives it in. */
export const fileOf = (file: string): Promise<Uint8Array> => readFile(fileURLToPath(import.meta.resolve(file)));

type Compiled = NonNullable<Parameters<typeof init>[0]>;
declare const WebAssembly: { compile(bytes: Uint8Array): Promise<Compiled> };

/** A JPEG of some pixels, plain and quick. @param quality 0 to 100. */
export async function jpegOf({ data, width, height }: Pixels, quality: number): Promise<Uint8Array> {
  await init(await WebAssembly.compile(await fileOf('@jsquash/jpeg/codec/enc/mozjpeg_enc.wasm')));
  const plain = { quality, baseline: true, progressive: false, optimize_coding: false };
  return new Uint8Array(await encodeJpeg({ data, width, height }, plain));
}
