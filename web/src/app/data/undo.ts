import { Injectable, signal } from '@angular/core';
import type { ApiFailure } from './api';
import { inTextField } from './keys';

/** Something that was just done, and how it is taken back. */
export interface LastThing {
  /** What was done, as a noun: "Reading 3 div". */
  readonly done: string;
  readonly back: () => void;
}

/** How long the line stands, ms. */
const STANDS = 10_000;
/** As far back as it goes. */
const MOST = 30;

/** Tell what was just done and how it is taken back. */
export type Tell = (done: string, back: () => void) => void;

/**
 * The last things that were done, newest last: each can be taken back with Ctrl Z, from any screen, and with the line that stands
 * for ten seconds. Taking back writes something new: what was there before stays to be seen.
 */
@Injectable({ providedIn: 'root' })
export class Undo {
  private things: readonly LastThing[] = [];
  private taking = false;
  private many: (() => void)[] | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** What was done last, as long as its line stands. */
  readonly last = signal<LastThing | null>(null);
  /** What was just taken back, or why it could not be. */
  readonly told = signal('');

  /** For a write that is asked for now: how to tell of it once it is done. What is written to take something back is not told. */
  telling(): Tell {
    const many = this.many;
    if (this.taking) return () => undefined;
    return many ? (_done, back) => many.push(back) : (done, back) => this.did({ done, back });
  }

  /**
   * Many writes that are one thing to whoever asked for them: until it is closed, what is told of is taken back together, the last first.
   *
   * @returns close it, with what was done: "289 readings written".
   */
  gather(): (done: string) => void {
    const many: (() => void)[] = [];
    this.many = many;
    return (done) => {
      if (this.many === many) this.many = null;
      if (many.length) this.did({ done, back: () => [...many].reverse().forEach((back) => back()) });
    };
  }

  private did(thing: LastThing): void {
    this.things = [...this.things, thing].slice(-MOST);
    this.told.set('');
    this.last.set(thing);
    this.later();
  }

  private later(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.last.set(null);
      this.told.set('');
    }, STANDS);
  }

  /** Take the last thing back. @returns false where there is none. */
  takeBack(): boolean {
    const thing = this.things.at(-1);
    if (!thing) return false;
    this.things = this.things.slice(0, -1);
    this.last.set(null);
    this.told.set(`Undone: ${thing.done}.`);
    this.taking = true;
    try {
      thing.back();
    } finally {
      this.taking = false;
    }
    this.later();
    return true;
  }

  /** It could not be taken back: why. */
  readonly failed = ({ message }: Pick<ApiFailure, 'message'>): void => {
    this.told.set(`Could not undo: ${message}`);
    this.later();
  };

  /** Ctrl Z; in a field that holds something it is the field's own. */
  handle(event: KeyboardEvent): void {
    if (event.key.toLowerCase() !== 'z' || !(event.ctrlKey || event.metaKey) || event.shiftKey || event.altKey || event.repeat) return;
    if (event.defaultPrevented || (inTextField(event) && (event.target as HTMLInputElement).value)) return;
    if (this.takeBack()) event.preventDefault();
  }
}
