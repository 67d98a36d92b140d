import { DestroyRef, Injectable, inject, signal } from '@angular/core';

/** A key that works right now. */
export interface KeyHint {
  /** As shown: `Enter`, `↑ ↓`, `U`. */
  readonly shown: string;
  readonly does: string;
  /** `KeyboardEvent.key` values it answers to, letters in lower case. */
  readonly keys: readonly string[];
  /** Returns false when it did nothing, so that the key keeps its usual meaning. */
  readonly run: (event: KeyboardEvent) => boolean | void;
  /** Listened to, but not worth a place in the strip. */
  readonly quiet?: boolean;
  /** Works while a text field, a list or a dialog has the focus too. */
  readonly inFields?: boolean;
  /** A key that is held down counts again and again: going from place to place. Anything else counts once. */
  readonly repeats?: boolean;
}

/** A field that has not come by then will not come, ms. */
const PATIENCE = 5000;

/** What Space and Enter press by themselves. */
const PRESSED = 'button, a[href], summary, select, [role="button"], [role="switch"], [role="tab"]';
/** Where arrows go from one choice to the next. */
const ROVING = '[role="radiogroup"], [role="slider"], [role="listbox"], [role="tablist"]';
/** What has the hand to itself: no letter goes past it. */
const HELD = '[role="listbox"], [role="combobox"], [role="dialog"], .p-datepicker, .p-select-overlay';

/** Whether an event comes from a field in which letters are typed. */
export function inTextField(event: Event): boolean {
  const target = event.target as HTMLElement | null;
  return (
    !!target &&
    (target.tagName === 'TEXTAREA' ||
      target.isContentEditable ||
      (target.tagName === 'INPUT' && (target as HTMLInputElement).type === 'text'))
  );
}

/** A field that gives its letters to the keys as long as it is empty, so that the hand need not leave it. */
function lendsKeys(event: Event): boolean {
  const target = event.target as HTMLInputElement | null;
  return target?.dataset?.['keys'] === 'when-empty' && target.value === '';
}

/** Whether the letters of an event go into a field, a list or a dialog. */
const typesIn = (event: Event, target: Element | null): boolean => (inTextField(event) && !lendsKeys(event)) || !!target?.closest(HELD);

/** A key that something else has taken, or that belongs to the browser. */
const isNotMeant = (event: KeyboardEvent): boolean => event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey;

/** The keys of the screen on show: drawn in the key strip, listened to in one place. */
@Injectable({ providedIn: 'root' })
export class Keys {
  private readonly layers = signal<readonly (readonly KeyHint[])[]>([]);

  /** Keys that work now, the shell's own first; of two on one key the newer. */
  all(): readonly KeyHint[] {
    const hints = this.layers().flat();
    return hints.filter((hint, i) => hint.quiet || !hints.some(({ shown, quiet }, k) => k > i && !quiet && shown === hint.shown));
  }

  /** Put a screen's keys in force; the returned function takes them away. */
  use(hints: readonly KeyHint[]): () => void {
    this.layers.update((layers) => [...layers, hints]);
    return () => this.layers.update((layers) => layers.filter((layer) => layer !== hints));
  }

  /** What was typed since a field was asked for that is not there yet; undefined while none is awaited. */
  private early: { text: string; readonly until: number } | undefined;

  /** A field is on its way: what is typed until it is there is meant for it, and no key of the screen takes it. */
  awaitField(): void {
    this.early = { text: '', until: performance.now() + PATIENCE };
  }

  /** The field is there. @returns what was typed since it was asked for. */
  fieldIsHere(): string {
    const text = this.early?.text ?? '';
    this.early = undefined;
    return text;
  }

  /** Whether a key was meant for a field that is still on its way. */
  private keptFor(event: KeyboardEvent): boolean {
    if (!this.early || performance.now() > this.early.until || event.key === 'Escape' || inTextField(event)) return false;
    if (event.key.length === 1) this.early.text += event.key;
    if (event.key === 'Backspace') this.early.text = this.early.text.slice(0, -1);
    event.preventDefault();
    return true;
  }

  handle(event: KeyboardEvent): void {
    if (isNotMeant(event) || this.keptFor(event)) return;
    const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
    const target = event.target instanceof Element ? event.target : null;
    if ((key === ' ' || key === 'Enter') && target?.closest(PRESSED)) {
      // The control is pressed by it, and a key that is held down presses it once.
      if (event.repeat) event.preventDefault();
      return;
    }
    if (key.startsWith('Arrow') && target?.closest(ROVING)) return;
    const typing = typesIn(event, target);
    this.run(event, (hint) => hint.keys.includes(key) && (!typing || !!hint.inFields));
  }

  /** The newest of the keys that are meant takes the event; one that declines it leaves it to the next. */
  private run(event: KeyboardEvent, meant: (hint: KeyHint) => boolean): void {
    for (const hint of this.layers().flat().reverse().filter(meant)) {
      if (event.repeat && !hint.repeats) return event.preventDefault();
      if (hint.run(event) === false) continue;
      return event.preventDefault();
    }
  }
}

/** Keys of what is being made: in force from now until it is gone. Called where it may inject. */
export function useKeys(hints: readonly KeyHint[]): void {
  inject(DestroyRef).onDestroy(inject(Keys).use(hints));
}
