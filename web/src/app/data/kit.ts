import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable, catchError, first, map, of, switchMap, tap } from 'rxjs';
import * as z from 'zod';
import { storedKitSchema, type KitItem } from '@isometra/contract';
import { parseQuantity } from '@isometra/core';
import { newId } from './id';
import { Api } from './api';
import { Shelf } from './archive';
import { Loads, Writes, withRow } from './flows';
import { Outbox } from './outbox';
import { Settings } from './settings';
import { Undo } from './undo';

/** What the shop measures with, and the shim drawers. */
@Injectable({ providedIn: 'root' })
export class Kit {
  private readonly api = inject(Api);
  private readonly outbox = inject(Outbox);
  private readonly settings = inject(Settings);
  private readonly undo = inject(Undo);
  private readonly known$ = new BehaviorSubject<readonly KitItem[]>([]);
  private readonly writes = new Writes();
  private readonly shelf = new Shelf<KitItem>({
    ...{ kind: 'kit', writes: this.writes },
    ...{ keep: (item) => this.keep(item), called: ({ name }) => name },
  });
  private readonly loads = new Loads(
    () => this.api.get('/kit', z.array(storedKit)),
    (items) => this.known$.next(items),
  );

  readonly all$: Observable<readonly KitItem[]> = this.known$.asObservable();
  /** What is not in the archive. */
  readonly inUse$: Observable<readonly KitItem[]> = this.known$.pipe(map((items) => items.filter(({ archived }) => !archived)));
  /** Photographs that are still on their way, by the piece of kit they show. */
  readonly waitingPhotos$: Observable<readonly string[]> = this.outbox.queue$.pipe(
    map((queue) => queue.filter(({ what }) => what === 'photo').map(({ about }) => about)),
  );

  constructor() {
    this.outbox.answers$.subscribe(({ entry: { what }, answer }) => {
      const item = what === 'photo' ? storedKit.safeParse(answer).data : undefined;
      if (item) this.keep(item);
      // The leaves of a move that is done are out of the drawer.
      if (what === 'move' && this.known$.value.length) this.load().subscribe({ error: () => undefined });
    });
  }

  /** Fails with an ApiFailure. */
  load(): Observable<void> {
    return this.loads.ask('all');
  }

  /** Add (`version` 0) or change a piece of kit. Fails with an ApiFailure. */
  save(item: KitItem): Observable<KitItem> {
    const added = item.version === 0;
    const [tell, before] = [this.undo.telling(), this.known$.value.find(({ id }) => id === item.id)];
    const { archived: _archived, ...own } = item;
    const body = { ...own, version: Math.max(1, item.version), by: this.settings.by() };
    return this.writes.send(() =>
      this.api.send(added ? 'POST' : 'PUT', added ? '/kit' : `/kit/${item.id}`, body, storedKit).pipe(
        tap((saved) => {
          this.keep(saved);
          tell(`${saved.name} ${added ? 'added' : 'changed'}`, () =>
            (before ? this.save({ ...before, version: saved.version }) : this.archive(saved, true)).subscribe({ error: this.undo.failed }),
          );
        }),
      ),
    );
  }

  /** Into the archive, or out of it again. Fails with an ApiFailure. */
  archive(item: KitItem, away: boolean): Observable<KitItem> {
    return this.shelf.put(item, away);
  }

  /** A photograph of a piece of kit: kept in the browser until the server has taken it. */
  addPhoto(kitId: string, photo: Blob): void {
    const id = newId();
    // What is still on its way can only be taken off once it has arrived.
    const arrived = this.outbox.queue$.pipe(first((queue) => !queue.some((entry) => entry.id === id)));
    this.undo.telling()('Photograph added', () =>
      arrived.pipe(switchMap(() => this.removePhoto(kitId, id, () => undefined))).subscribe({ error: this.undo.failed }),
    );
    const query = `id=${id}&by=${encodeURIComponent(this.settings.by())}`;
    void this.outbox.put({
      id,
      what: 'photo',
      method: 'POST',
      path: `/kit/${kitId}/photos?${query}`,
      body: photo,
      about: kitId,
      machineId: null,
    });
  }

  /** Take a photograph off a piece of kit. Fails with an ApiFailure. */
  removePhoto(kitId: string, photo: string, tell = this.undo.telling()): Observable<KitItem> {
    const by = encodeURIComponent(this.settings.by());
    // The picture itself is fetched first: taken back, it is added again.
    return this.api.picture(`/photos/${photo}`).pipe(
      catchError(() => of(null)),
      switchMap((picture) =>
        this.writes.send(() =>
          this.api.remove(`/kit/${kitId}/photos/${photo}?by=${by}`, storedKit).pipe(
            tap((saved) => {
              this.keep(saved);
              if (picture) tell('Photograph taken off', () => this.addPhoto(kitId, picture));
            }),
          ),
        ),
      ),
    );
  }

  private keep(saved: KitItem): void {
    this.known$.next(withRow(this.known$.value, saved));
  }
}

const storedKit = storedKitSchema;

/** The leaves in the shim drawers, or undefined when there is no drawer. */
export function stockOf(kit: readonly KitItem[]): readonly unknown[] | undefined {
  const drawers = kit.filter((item) => item.kind === 'shim-stock');
  return drawers.length ? drawers.flatMap((item) => item.data['stock'] as unknown[]) : undefined;
}

/** Sine plates, the longest first: the name, and mm between the rolls. */
export function sinePlatesOf(kit: readonly KitItem[]): readonly { readonly name: string; readonly rolls: number }[] {
  return kit
    .filter((item) => item.kind === 'sine-plate')
    .flatMap(({ name, data }) => {
      const rolls = parseQuantity(data['rolls'], 'length');
      return rolls.ok ? [{ name, rolls: rolls.value }] : [];
    })
    .sort((one, other) => other.rolls - one.rolls);
}
