import { Injectable, computed, effect, signal } from '@angular/core';
import type { Fineness, UnitSystem } from '@isometra/core';
import * as z from 'zod';

const keptSchema = z.object({
  system: z.enum(['mm', 'inch']),
  fineness: z.enum(['coarse', 'fine']),
  who: z.string().max(8),
});
type Kept = z.infer<typeof keptSchema>;

const KEY = 'isometra-settings';
const DEFAULTS: Kept = { system: 'mm', fineness: 'coarse', who: '' };

/** What this browser remembers of the person at it: unit, fineness, initials. */
@Injectable({ providedIn: 'root' })
export class Settings {
  private readonly kept = readKept();
  readonly system = signal<UnitSystem>(this.kept.system);
  readonly fineness = signal<Fineness>(this.kept.fineness);
  readonly who = signal(this.kept.who);
  /** How figures are shown just now. */
  readonly shown = computed(() => ({ system: this.system(), fineness: this.fineness() }));

  constructor() {
    effect(() => localStorage.setItem(KEY, JSON.stringify({ system: this.system(), fineness: this.fineness(), who: this.who() })));
  }

  /** Initials for a write; a question mark until somebody has given theirs. */
  by(): string {
    return this.who().trim().slice(0, 8) || '?';
  }

  switchSystem(): void {
    this.system.update((system) => (system === 'mm' ? 'inch' : 'mm'));
  }

  switchFineness(): void {
    this.fineness.update((fineness) => (fineness === 'coarse' ? 'fine' : 'coarse'));
  }
}

function readKept(): Kept {
  try {
    return { ...DEFAULTS, ...keptSchema.partial().parse(JSON.parse(localStorage.getItem(KEY) ?? '{}')) };
  } catch {
    return DEFAULTS;
  }
}
