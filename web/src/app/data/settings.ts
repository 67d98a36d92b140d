import { Injectable, computed, effect, signal } from '@angular/core';
import type { Fineness, UnitSystem } from '@isometra/core';
import * as z from 'zod';

const keptSchema = z.object({
  system: z.enum(['mm', 'inch']),
  fineness: z.enum(['coarse', 'fine']),
  who: z.string().max(8),
  usual: z.object({ system: z.enum(['mm', 'inch']), fineness: z.enum(['coarse', 'fine']) }),
});
type Kept = z.infer<typeof keptSchema>;

const KEY = 'isometra-settings';
/** What counts on a device that nobody has set. */
type Usual = Pick<Kept, 'system' | 'fineness'>;
const DEFAULTS: Usual = { system: 'mm', fineness: 'coarse' };

/** What this browser remembers of the person at it: unit, fineness, initials. What was never set here follows the shop. */
@Injectable({ providedIn: 'root' })
export class Settings {
  private readonly kept = readKept();
  /** What is usual in the shop, as it was told last. */
  private readonly usual = signal<Usual>({ ...DEFAULTS, ...this.kept.usual });
  readonly system = signal<UnitSystem>(this.kept.system ?? this.usual().system);
  readonly fineness = signal<Fineness>(this.kept.fineness ?? this.usual().fineness);
  readonly who = signal(this.kept.who ?? '');
  /** How figures are shown just now. */
  readonly shown = computed(() => ({ system: this.system(), fineness: this.fineness() }));
  /** How figures were shown when this page began, or since it follows the shop. */
  private began = this.shown();
  /** Something was typed: from then on no unit changes by itself. */
  private typed = false;

  constructor() {
    addEventListener('input', () => (this.typed = true), { once: true, capture: true });
    effect(() => {
      const [{ system, fineness }, began] = [this.shown(), this.began];
      const own: Partial<Kept> = {
        ...((this.kept.system || (system !== began.system && system !== this.usual().system)) && { system }),
        ...((this.kept.fineness || (fineness !== began.fineness && fineness !== this.usual().fineness)) && { fineness }),
        who: this.who(),
        usual: this.usual(),
      };
      localStorage.setItem(KEY, JSON.stringify(own));
    });
  }

  /** What is usual in the shop. A device that nobody has set follows it: at once as long as nothing was typed, otherwise from its next start. */
  follow(usual: Partial<Usual>): void {
    this.usual.set({ ...DEFAULTS, ...usual });
    if (this.typed) return;
    // What was switched by hand meanwhile stays.
    if (!this.kept.system && this.system() === this.began.system) this.system.set(this.usual().system);
    if (!this.kept.fineness && this.fineness() === this.began.fineness) this.fineness.set(this.usual().fineness);
    this.began = this.shown();
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

function readKept(): Partial<Kept> {
  try {
    return keptSchema.partial().parse(JSON.parse(localStorage.getItem(KEY) ?? '{}'));
  } catch {
    return {};
  }
}
