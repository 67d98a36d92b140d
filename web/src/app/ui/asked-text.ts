import { linkedSignal, type Signal } from '@angular/core';

/** What stands in a field whose text goes into the address. */
export interface AskedText {
  readonly value: Signal<string>;
  /** Something was typed. @returns what is asked for. */
  type(text: string): string;
}

/**
 * A field that asks by the address: what comes back from there is what was typed a while ago, and never takes the place of what was typed
 * since. What the address says by itself (a link, Back) stands in the field.
 */
export function askedText(address: () => string): AskedText {
  const asked = new Set<string>();
  let typed: string | undefined;
  const value = linkedSignal<string, string>({
    source: address,
    computation: (now, before) => (before && before.value === typed && asked.has(now) ? before.value : now),
  });
  return {
    value: value.asReadonly(),
    type: (text) => {
      typed = text;
      asked.add(text.trim());
      value.set(text);
      return text.trim();
    },
  };
}
