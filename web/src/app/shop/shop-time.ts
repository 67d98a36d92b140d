import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { ApiFailure } from '../data/api';
import { ShopStore, timeZones } from '../data/shop';
import { shopZone } from '../data/when';
import { Button } from '../ui/controls';
import { Escape } from '../ui/escape';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';

/** In whose time the shop thinks: told in a line, and changed there. */
@Component({
  selector: 'iso-shop-time',
  imports: [Escape, Button, Notice, Pick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (choosing()) {
      <span class="line" (isoEscape)="choosing.set(false)">
        <label for="shop-zone">Time zone of the shop</label>
        <iso-pick inputId="shop-zone" label="Time zone of the shop" [options]="zones()" [value]="zone()" (chosen)="choose($event)" />
        <button pButton type="button" class="plain" (click)="choosing.set(false)">cancel</button>
      </span>
    } @else {
      <span>Days and evenings are those of {{ zone() }}{{ from() }}.</span>
      <button pButton type="button" class="plain" (click)="choosing.set(true)">Change the time zone</button>
    }
    <iso-notice [text]="problem()" />
  `,
  styles: `
    :host,
    .line {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
      align-items: baseline;
    }
    :host {
      margin-top: 14px;
      color: var(--soft);
    }
  `,
})
export class ShopTime {
  private readonly store = inject(ShopStore);
  protected readonly choosing = signal(false);
  protected readonly problem = signal('');
  protected readonly zone = shopZone;
  protected readonly zones = computed(() => [...new Set([shopZone(), ...timeZones()])].sort().map((value) => ({ value, label: value })));
  protected readonly from = computed(() => {
    const chosenBy = this.store.shop()?.chosenBy;
    return chosenBy ? ` (chosen by ${chosenBy})` : '';
  });

  protected choose(zone: string): void {
    this.problem.set('');
    this.store.chooseZone(zone).subscribe({
      next: () => this.choosing.set(false),
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }
}
