import { Injectable, inject, signal } from '@angular/core';
import { take, filter } from 'rxjs';
import type { ListedPerson } from '@isometra/contract';
import { People } from './people';
import { Settings } from './settings';
import { Undo } from './undo';

const ASKED = 'isometra-asked-initials';

/** Initials that nobody in the shop has used before: asked about once on this device. */
@Injectable({ providedIn: 'root' })
export class NewInitials {
  private readonly people = inject(People);
  private readonly settings = inject(Settings);
  private readonly undo = inject(Undo);
  /** What is asked about, and who it may have been meant for. */
  readonly asked = signal<{ readonly initials: string; readonly others: readonly ListedPerson[] } | null>(null);

  constructor() {
    // Initials of this device that turn out to be a typing mistake are put right, whoever found it out and where.
    this.people.all$.subscribe((people) => {
      const own = people?.find(({ initials }) => initials === this.settings.by());
      if (own?.meant) this.use(own.meant, `${own.initials} counts as ${own.meant} in this shop.`);
    });
  }

  /** A page begins: initials that this device has kept may have been put right since. */
  begin(): void {
    if (this.settings.by() !== '?') this.people.load().subscribe({ error: () => undefined });
  }

  /** Somebody has typed initials. */
  ask(initials: string): void {
    this.asked.set(null);
    if (initials === '?') return;
    // Without the server nobody is asked.
    this.people.load().subscribe({ error: () => undefined, complete: () => this.compare(initials) });
  }

  private compare(initials: string): void {
    this.people.all$
      .pipe(
        filter((people) => people !== null),
        take(1),
      )
      .subscribe((people) => {
        const known = people.find((person) => person.initials === initials);
        const others = people.filter(({ meant }) => meant === null);
        // The first one in a shop is taken as they are.
        if (!known && others.length && !askedBefore().includes(initials)) this.asked.set({ initials, others });
      });
  }

  private use(initials: string, why: string): void {
    this.settings.who.set(initials);
    this.undo.told.set(why);
  }

  /** They are somebody's own: added to the people of the shop. */
  add(): void {
    const initials = this.settle();
    if (initials) this.people.keep({ initials, name: '', meant: null }).subscribe({ error: this.undo.failed });
  }

  /** They were a typing mistake: what was written with them meanwhile counts as the other's too. */
  meant(other: string): void {
    const initials = this.settle();
    if (!initials) return;
    this.settings.who.set(other);
    this.people.keep({ initials, name: '', meant: other }).subscribe({ error: this.undo.failed });
  }

  /** It was asked once. @returns what was asked about. */
  settle(): string | undefined {
    const initials = this.asked()?.initials;
    this.asked.set(null);
    if (initials) localStorage.setItem(ASKED, JSON.stringify([...askedBefore(), initials]));
    return initials;
  }
}

function askedBefore(): readonly string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(ASKED) ?? '[]');
    return Array.isArray(kept) ? kept.map(String) : [];
  } catch {
    return [];
  }
}
