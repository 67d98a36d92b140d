import { Injectable } from '@angular/core';

const PREFIX = 'isometra-draft:';

/** What has been typed but not taken yet, kept through navigation, reload and crash. */
@Injectable({ providedIn: 'root' })
export class Drafts {
  read<T>(name: string): T | undefined {
    try {
      const text = localStorage.getItem(PREFIX + name);
      return text === null ? undefined : (JSON.parse(text) as T);
    } catch {
      return undefined;
    }
  }

  keep(name: string, value: unknown): void {
    localStorage.setItem(PREFIX + name, JSON.stringify(value));
  }

  drop(name: string): void {
    localStorage.removeItem(PREFIX + name);
  }
}
