import { Injectable, inject, signal, untracked } from '@angular/core';
import { type Observable, map } from 'rxjs';
import { newId } from './id';
import { Outbox } from './outbox';
import { Settings } from './settings';

/** A picture upright and without what the camera wrote beside it, as it is kept. Fails with a FaultError. */
async function asKept(file: Blob): Promise<Uint8Array> {
  const { cleanPicture, pictureFacts } = await import('@isometra/core/print');
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (pictureFacts(bytes).orientation === 1) return cleanPicture(bytes);
  const bitmap = await createImageBitmap(file);
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0);
  bitmap.close();
  return cleanPicture(new Uint8Array(await (await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.92 })).arrayBuffer()));
}

/** Pictures by what is in them: a picture has its name before the server has it, and is shown from here until then. */
@Injectable({ providedIn: 'root' })
export class Pictures {
  private readonly outbox = inject(Outbox);
  private readonly settings = inject(Settings);
  /** Addresses of pictures that are kept in this browser, by name: a screen that shows one follows when it is found there. */
  private readonly here = signal<ReadonlyMap<string, string>>(new Map());

  /** Names of pictures that are still on their way. */
  readonly waiting$: Observable<ReadonlySet<string>> = this.outbox.queue$.pipe(
    map((queue) => new Set(queue.flatMap(({ what, about, body }) => (what === 'picture' ? [this.kept(about, body)] : [])))),
  );

  constructor() {
    // What a page before this one left is shown from here until the server has it.
    this.waiting$.subscribe();
  }

  /**
   * Keep a picture: in the browser until the server has taken it.
   *
   * @returns its name, once the browser has kept it: a reload right after it loses nothing. Fails with a FaultError at `photo` for what is no picture or too large.
   */
  async keep(file: Blob): Promise<string> {
    const bytes = (await asKept(file)) as Uint8Array<ArrayBuffer>;
    const [{ sha256 }, { bytesToHex }] = await Promise.all([import('@noble/hashes/sha2'), import('@noble/hashes/utils')]);
    const name = bytesToHex(sha256(bytes));
    const body = new Blob([bytes], { type: 'application/octet-stream' });
    const kept = this.outbox.put({
      ...{ id: newId(), what: 'picture', method: 'POST', about: name, machineId: null },
      path: `/pictures?by=${encodeURIComponent(this.settings.by())}`,
      body,
    });
    await kept;
    return this.kept(name, body);
  }

  private kept(name: string, body: unknown): string {
    if (body instanceof Blob && !untracked(this.here).has(name))
      this.here.update((known) => new Map(known).set(name, URL.createObjectURL(body)));
    return name;
  }

  /** Where a picture is shown from. */
  address(name: string): string {
    return this.here().get(name) ?? `/api/pictures/${name}`;
  }
}
