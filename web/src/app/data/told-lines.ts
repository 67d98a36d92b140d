import { HttpEventType, type HttpEvent } from '@angular/common/http';
import type * as z from 'zod';
import { parsedJson } from './api';

/** What has come of an answer so far; undefined where nothing has. */
function textOf(event: HttpEvent<string>): string | undefined {
  if (event.type === HttpEventType.DownloadProgress) return (event as { readonly partialText?: string }).partialText;
  return event.type === HttpEventType.Response ? (event.body ?? '') : undefined;
}

/**
 * The last line that has come of an answer that is told line by line, and whether it is the last of all; undefined for an event that
 * tells nothing of the answer. A line that cannot be read, or has not come to its end, is `line: undefined`.
 */
export function lastLine<S extends z.ZodType>(
  event: HttpEvent<string>,
  schema: S,
): { readonly line: z.output<S> | undefined; readonly ended: boolean } | undefined {
  const text = textOf(event);
  if (text === undefined) return undefined;
  const line = schema.safeParse(parsedJson(text.trimEnd().split('\n').at(-1) ?? '')).data;
  return { line, ended: event.type === HttpEventType.Response };
}

export const percentOf = (done: number, of: number | undefined): number => (of ? Math.round((100 * done) / of) : 0);
