import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';
import { Keys, type KeyHint } from '../data/keys';
import { Outbox } from '../data/outbox';
import { Settings } from '../data/settings';
import { AllKeys } from './all-keys';
import { AtHand } from './at-hand';
import { Button, TextField } from '../ui/controls';

/** The name plate across the top. */
@Component({
  selector: 'iso-plate',
  imports: [RouterLink, RouterLinkActive, AllKeys, Button, TextField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './plate.html',
  styleUrl: './plate.css',
})
export class Plate {
  protected readonly settings = inject(Settings);
  protected readonly outbox = inject(Outbox);
  protected readonly hand = inject(AtHand);
  protected readonly showKeys = signal(false);
  protected readonly keys = inject(Keys);
  /** What holds up the writes that wait. */
  protected readonly held = computed(() => {
    if (this.outbox.shutOut()) return 'saved in this browser: this device is not let in any more';
    return this.outbox.away() ? 'saved in this browser: the server cannot be reached' : 'being saved';
  });

  constructor() {
    const hints: readonly KeyHint[] = [
      { shown: 'U', does: 'mm or inch', keys: ['u'], run: () => this.settings.switchSystem() },
      { shown: '?', does: 'all keys', keys: ['?'], run: () => this.toggleKeys() },
      {
        shown: 'Esc',
        does: 'close',
        keys: ['Escape'],
        inFields: true,
        quiet: true,
        run: () => (this.showKeys() ? this.toggleKeys() : false),
      },
    ];
    this.keys.use(hints);
  }

  protected toggleKeys(): void {
    this.showKeys.update((shown) => !shown);
  }
}
