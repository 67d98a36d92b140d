import { Injectable } from '@angular/core';
import type * as z from 'zod';
import { parsedJson } from './api';

const PREFIX = 'isometra-draft:';

/** What has been typed but not taken yet, kept through navigation, reload and crash. */
@Injectable({ providedIn: 'root' })
export class Drafts {
  /** What was kept under a name; nothing where it is not (or no longer) of the shape that is asked for. */
  read<S extends z.ZodType>(name: string, schema: S): z.output<S> | undefined {
    const text = localStorage.getItem(PREFIX + name);
    return text === null ? undefined : schema.safeParse(parsedJson(text)).data;
  }

  keep(name: string, value: unknown): void {
    localStorage.setItem(PREFIX + name, JSON.stringify(value));
  }

  drop(name: string): void {
    localStorage.removeItem(PREFIX + name);
  }
}
