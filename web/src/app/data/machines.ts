import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable, map, tap } from 'rxjs';
import type { Machine } from '@isometra/contract';
import { Api } from './api';
import { Settings } from './settings';

/** The machines of the shop. */
@Injectable({ providedIn: 'root' })
export class Machines {
  private readonly api = inject(Api);
  private readonly settings = inject(Settings);
  private readonly known = new BehaviorSubject<readonly Machine[]>([]);

  /** All machines, as last read; `load` reads them again. */
  readonly all$: Observable<readonly Machine[]> = this.known.asObservable();

  load(): Observable<readonly Machine[]> {
    return this.api.get<Machine[]>('/machines').pipe(tap((machines) => this.known.next(machines)));
  }

  one(id: string): Observable<Machine> {
    return this.api.get<Machine>(`/machines/${id}`);
  }

  /** Add (`version` 0) or change a machine. */
  save(machine: Machine): Observable<Machine> {
    const added = machine.version === 0;
    const body = { ...machine, version: Math.max(1, machine.version), by: this.settings.by() };
    return this.api
      .send<Machine>(added ? 'POST' : 'PUT', added ? '/machines' : `/machines/${machine.id}`, body)
      .pipe(
        tap((saved) =>
          this.known.next(
            [...this.known.value.filter((entry) => entry.id !== saved.id), saved].sort((a, b) =>
              String(a.card.number).localeCompare(String(b.card.number)),
            ),
          ),
        ),
      );
  }

  /** Fill an empty shop with the demo. */
  fillDemo(): Observable<readonly Machine[]> {
    return this.api.send<Machine[]>('POST', '/demo', {}).pipe(
      map((machines) => machines as readonly Machine[]),
      tap((machines) => this.known.next(machines)),
    );
  }
}
