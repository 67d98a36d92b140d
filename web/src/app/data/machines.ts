import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable, map, tap } from 'rxjs';
import * as z from 'zod';
import { storedMachineSchema, type Machine } from '@isometra/contract';
import { Api } from './api';
import { Shelf } from './archive';
import { Loads, Writes, withRow } from './flows';
import { Outbox } from './outbox';
import { Settings } from './settings';
import { Undo } from './undo';

const byNumber = (one: Machine, other: Machine): number => one.card.number.localeCompare(other.card.number);

/** The machines of the shop. */
@Injectable({ providedIn: 'root' })
export class Machines {
  private readonly api = inject(Api);
  private readonly settings = inject(Settings);
  private readonly undo = inject(Undo);
  private readonly known$ = new BehaviorSubject<readonly Machine[]>([]);
  private readonly writes = new Writes();
  private readonly shelf = new Shelf<Machine>({
    ...{ kind: 'machines', writes: this.writes },
    ...{ keep: (machine) => this.keep(machine), called: ({ card }) => card.number },
  });
  private readonly loads = new Loads(
    () => this.api.get('/machines', z.array(storedMachineSchema)),
    (machines) => this.known$.next(machines),
  );
  private readonly singles = new Loads(
    (id) => this.api.get(`/machines/${id}`, storedMachineSchema),
    (machine) => this.keep(machine),
  );

  constructor() {
    // A move that is done may have left something standing elsewhere than the card says.
    inject(Outbox).answers$.subscribe(({ entry: { what, machineId } }) => {
      if (what === 'move' && this.known$.value.some(({ id }) => id === machineId))
        this.loadOne(machineId ?? '').subscribe({ error: () => undefined });
    });
  }

  /** All machines, as last read; `load` reads them again. */
  readonly all$: Observable<readonly Machine[]> = this.known$.asObservable();

  /** Fails with an ApiFailure. */
  load(): Observable<void> {
    return this.loads.ask('all');
  }

  /** Ask for one machine. Fails with an ApiFailure. */
  loadOne(id: string): Observable<void> {
    return this.singles.ask(id);
  }

  one(id: string): Observable<Machine | undefined> {
    return this.known$.pipe(map((machines) => machines.find((entry) => entry.id === id)));
  }

  /** Add (`version` 0) or change a machine. Fails with an ApiFailure. */
  save(machine: Machine): Observable<Machine> {
    const added = machine.version === 0;
    const [tell, before] = [this.undo.telling(), this.known$.value.find(({ id }) => id === machine.id)];
    const { archived: _archived, ...own } = machine;
    const body = { ...own, version: Math.max(1, machine.version), by: this.settings.by() };
    const path = added ? '/machines' : `/machines/${machine.id}`;
    return this.writes.send(() =>
      this.api.send(added ? 'POST' : 'PUT', path, body, storedMachineSchema).pipe(
        tap((saved) => {
          this.keep(saved);
          tell(added ? `${saved.card.number} added` : `Card of ${saved.card.number} changed`, () =>
            (before ? this.save({ ...before, version: saved.version }) : this.archive(saved, true)).subscribe({ error: this.undo.failed }),
          );
        }),
      ),
    );
  }

  /** Into the archive, or out of it again. Fails with an ApiFailure. */
  archive(machine: Machine, away: boolean): Observable<Machine> {
    return this.shelf.put(machine, away);
  }

  /** Fill an empty shop with the demo. */
  fillDemo(): Observable<readonly Machine[]> {
    return this.writes.send(() =>
      this.api.send('POST', '/demo', {}, z.array(storedMachineSchema)).pipe(tap((machines) => this.known$.next(machines))),
    );
  }

  private keep(machine: Machine): void {
    this.known$.next([...withRow(this.known$.value, machine)].sort(byNumber));
  }
}
