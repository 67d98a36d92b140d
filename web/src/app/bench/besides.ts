import { computed, signal, type Signal } from '@angular/core';
import type { CheckDefinition, UnitSystem, Values } from '@isometra/core';
import * as z from 'zod';
import { alike, fieldsOf, withUnit, type FormValue } from '../ui/form-model';

/** Facts of a reading that are asked beside its figure: the temperature of a pad, where the tool was set. */
export class Besides {
  /** As typed, by key. */
  readonly typed = signal<FormValue>({});
  private readonly asked = computed(() => {
    const keys = this.keys();
    return keys ? (this.check()?.beside ?? []).filter(({ when }) => when?.(keys) ?? true) : [];
  });
  /** The fields of the place in hand; null where nothing is asked. */
  readonly schema = computed(
    (): z.ZodObject | null => {
      const [check, asked] = [this.check(), this.asked()];
      return check && asked.length ? z.strictObject(Object.fromEntries(asked.map(({ key }) => [key, check.reading.shape[key]]))) : null;
    },
    { equal: (one, other) => Object.keys(one?.shape ?? {}).join() === Object.keys(other?.shape ?? {}).join() },
  );

  constructor(
    private readonly check: Signal<CheckDefinition | undefined>,
    private readonly keys: () => Values | undefined,
  ) {}

  /** The keys of a reading with what was typed beside it; a bare figure has the unit it was shown with. */
  onto(keys: Readonly<Record<string, string | number | boolean>>, system: UnitSystem): Record<string, string | number | boolean> {
    const own = Object.entries(keys).filter(([key]) => !this.check()?.beside?.some((entry) => entry.key === key));
    return { ...Object.fromEntries(own), ...this.said(system) };
  }

  /** What was typed, each figure with its unit. */
  said(system: UnitSystem): Record<string, string> {
    const schema = this.schema();
    if (!schema) return {};
    const typed = alike(schema, this.typed());
    return Object.fromEntries(
      fieldsOf(schema).flatMap(({ key, info }) => {
        const text = String(typed[key] ?? '').trim();
        return text ? [[key, withUnit(text, info, system)]] : [];
      }),
    );
  }

  /** Show what a reading was taken with. */
  recall(keys: Values): void {
    this.typed.set(
      Object.fromEntries((this.check()?.beside ?? []).flatMap(({ key }) => (keys[key] === undefined ? [] : [[key, keys[key]]]))),
    );
  }

  /** What is as a rule the same at the next place: it stays in its field when a reading is taken. */
  staying(): FormValue {
    const stays = new Set(this.check()?.beside?.flatMap(({ key, stays: same }) => (same ? [key] : [])));
    return Object.fromEntries(Object.entries(this.typed()).filter(([key]) => stays.has(key)));
  }
}
