import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import encodeJpeg, { init } from '@jsquash/jpeg/encode.js';
import { FaultError, type Fault } from '@isometra/core';
import { cleanPicture, pictureFacts, type PictureFacts } from '@isometra/core/print';
import { decodePicture, decodersFrom } from '@isometra/core/print-files';

export type Cleaned =
  | { readonly value: Pick<PictureFacts, 'type' | 'width' | 'height'> & { readonly bytes: Uint8Array } }
  | { readonly faults: readonly Fault[] };

const fileOf = (file: string): Promise<Uint8Array> => readFile(fileURLToPath(import.meta.resolve(file)));
/** Plain and quick: a turned picture is drawn anew once. */
const PLAIN = { quality: 92, baseline: true, progressive: false, optimize_coding: false };

/** A JPEG that was not held upright is drawn anew the way it is looked at; what is upright keeps its own bytes. */
async function upright(bytes: Uint8Array, { orientation }: PictureFacts): Promise<Uint8Array> {
  if (orientation === 1) return bytes;
  const { data, width, height } = await decodePicture(bytes, decodersFrom(fileOf));
  const { WebAssembly } = globalThis as unknown as { readonly WebAssembly: { compile(bytes: Uint8Array): Promise<never> } };
  await init(await WebAssembly.compile(await fileOf('@jsquash/jpeg/codec/enc/mozjpeg_enc.wasm')));
  return new Uint8Array(await encodeJpeg({ data, width, height } as never, PLAIN));
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
