import { inject } from '@angular/core';
import { type Observable, map, tap } from 'rxjs';
import * as z from 'zod';
import { archivedSchema, type Archived, type ArchivedKind } from '@isometra/contract/archived';
import { Api } from './api';
import type { Writes } from './flows';
import { Settings } from './settings';
import { Undo } from './undo';

const answer = z.object({ archived: archivedSchema.optional() });

interface Archivable {
  readonly id: string;
  readonly archived?: Archived;
}

/** The archive of one kind of thing. Made by its store, whose writes it goes with. */
export class Shelf<Row extends Archivable> {
  private readonly api = inject(Api);
  private readonly settings = inject(Settings);
  private readonly undo = inject(Undo);

  constructor(
    private readonly store: {
      readonly kind: ArchivedKind;
      readonly writes: Writes;
      readonly keep: (row: Row) => void;
      readonly called: (row: Row) => string;
    },
  ) {}

  /** Put something in the archive, or take it out again. Fails with an ApiFailure. */
  put(row: Row, away: boolean): Observable<Row> {
    const { kind, writes, keep, called } = this.store;
    const tell = this.undo.telling();
    return writes.send(() =>
      this.api.send('POST', `/${kind}/${row.id}/archive`, { away, by: this.settings.by() }, answer).pipe(
        map((told): Row => {
          const { archived: _before, ...rest } = row;
          return { ...rest, ...told } as Row;
        }),
        tap((saved) => {
          keep(saved);
          tell(`${called(saved)} ${away ? 'put in the archive' : 'restored from the archive'}`, () =>
            this.put(saved, !away).subscribe({ error: this.undo.failed }),
          );
        }),
      ),
    );
  }
}
