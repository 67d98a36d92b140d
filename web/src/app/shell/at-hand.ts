import { Injectable, signal } from '@angular/core';

/** What the plate is stamped with: the machine, what is being done to it, the instrument in hand. */
@Injectable({ providedIn: 'root' })
export class AtHand {
  readonly machine = signal<{ readonly id: string; readonly number: string; readonly nickname: string } | null>(null);
  readonly doing = signal('');
  /** Whether the ladder is drawn in over the work: on a screen that has no room for it beside. */
  readonly ladderOpen = signal(false);
  /** Where the hand is on the screen: a place, a step, a zone. */
  readonly spot = signal('');
  readonly instrument = signal('');
  /** The check that came next on the machine that was open last: what kit is looked for. */
  readonly nextCheck = signal<string | null>(null);
}
