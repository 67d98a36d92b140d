import type { Observable } from 'rxjs';
import * as z from 'zod';
import { archivedSchema } from '@isometra/contract/archived';
import type { ArchivedKind } from '@isometra/contract';
import type { Api } from './api';
import type { Settings } from './settings';

const answer = z.object({ archived: archivedSchema.optional() });

/** Put something in the archive, or take it out again. Fails with an ApiFailure. */
export const sendArchive = (
  { api, settings }: { readonly api: Api; readonly settings: Settings },
  kind: ArchivedKind,
  id: string,
  away: boolean,
): Observable<z.infer<typeof answer>> => api.send('POST', `/${kind}/${id}/archive`, { away, by: settings.by() }, answer);

/** Something without what is told of the archive. */
export function withArchived<Row extends { readonly archived?: unknown }>(row: Row, told: z.infer<typeof answer>): Row {
  const { archived: _before, ...rest } = row;
  return { ...rest, ...told } as Row;
}
