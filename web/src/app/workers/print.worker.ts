import { expose, transfer } from 'comlink';
import { FaultError, pictureFacts, readPrint, type Print, type PrintSettings } from '@isometra/core/print';

/** What came out, or what stood in the way: an error of a class does not cross from one thread to another. */
export type PrintAnswer = { readonly print: Print } | { readonly problem: string };

async function pixelsOf(file: Blob): Promise<ImageData> {
  pictureFacts(new Uint8Array(await file.arrayBuffer()));
  const bitmap = await createImageBitmap(file).catch(() => null);
  if (!bitmap)
    throw new FaultError([{ path: 'photo', message: 'is damaged: its picture cannot be read', example: 'a whole PNG or JPEG file' }]);
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const pencil = canvas.getContext('2d', { willReadFrequently: true }) as OffscreenCanvasRenderingContext2D;
  pencil.drawImage(bitmap, 0, 0);
  bitmap.close();
  return pencil.getImageData(0, 0, canvas.width, canvas.height);
}

/** Reads prints: whoever wants it to stop ends the worker. The pixels of the last photograph are kept for another look at it. */
const work = {
  last: undefined as { readonly file: Blob; readonly pixels: ImageData } | undefined,

  async read(file: Blob, settings: Omit<PrintSettings, 'progress'>, progress: (done: number) => void): Promise<PrintAnswer> {
    try {
      progress(0.01);
      const known = this.last?.file.size === file.size ? this.last : undefined;
      const pixels = known?.pixels ?? (await pixelsOf(file));
      this.last = { file, pixels };
      const print = readPrint(pixels, { ...settings, progress });
      return transfer({ print }, [print.overlay.kinds.buffer as ArrayBuffer, print.overlay.rgb.buffer as ArrayBuffer]);
    } catch (error) {
      if (error instanceof FaultError) return { problem: `The photograph ${error.faults.map(({ message }) => message).join('; ')}.` };
      throw error;
    }
  },
};

export type PrintWork = typeof work;

expose(work);
