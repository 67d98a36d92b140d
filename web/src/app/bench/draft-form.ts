import { computed, inject, linkedSignal, type Signal } from '@angular/core';
import type { Fault } from '@isometra/core';
import type * as z from 'zod';
import { formFaults, formSchema, settled, type FormValue } from '../ui/form-model';
import { Drafts } from '../data/drafts';
import { Settings } from '../data/settings';

/** A small form that is kept as it is typed and belongs to no record: what a screen reckons with on the side. */
export interface DraftForm<S extends z.ZodObject> {
  readonly schema: S;
  readonly typed: Signal<FormValue>;
  readonly faults: Signal<readonly Fault[]>;
  /** What was typed, in base units; undefined while something of it cannot be read. */
  readonly values: Signal<z.output<S> | undefined>;
  readonly type: (value: FormValue) => void;
}

/** @param name under which it is kept. Call it where things are injected. */
export function draftForm<S extends z.ZodObject>(schema: S, name: () => string): DraftForm<S> {
  const [drafts, settings] = [inject(Drafts), inject(Settings)];
  const typed = linkedSignal((): FormValue => drafts.read(name(), formSchema) ?? {});
  const kept = computed(() => settled(schema, typed(), settings.system()));
  return {
    schema,
    typed,
    faults: computed(() => formFaults(schema, kept(), settings.system())),
    values: computed(() => schema.safeParse(kept()).data),
    type: (value) => {
      typed.set(value);
      drafts.keep(name(), value);
    },
  };
}
