import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { Keys } from '../data/keys';
import { NewInitials } from '../data/new-initials';
import { ShopStore } from '../data/shop';
import { Undo } from '../data/undo';
import { KeyStrip } from './key-strip';
import { LastThing } from './last-thing';
import { Plate } from './plate';
import { WhoAsked } from './who-asked';

/** The bones of every screen: plate, work, key strip. */
@Component({
  selector: 'iso-root',
  imports: [RouterOutlet, Plate, LastThing, KeyStrip, WhoAsked],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'undo.handle($event); keys.handle($event)' },
  template: `
    <a class="skip" href="#work" (click)="$event.preventDefault(); work.focus()">Skip to content</a>
    <iso-plate class="no-print" />
    <main #work id="work" tabindex="-1"><router-outlet /></main>
    <div class="foot no-print"><iso-who-asked /><iso-key-strip /><iso-last-thing /></div>
  `,
  styles: `
    :host {
      display: grid;
      grid-template: auto minmax(0, 1fr) auto / minmax(0, 1fr);
      height: 100dvh;
    }
    main {
      min-height: 0;
      overflow: auto;
      outline: none;
    }
    .foot {
      position: relative;
    }
    .skip {
      position: absolute;
      left: -999px;
    }
    .skip:focus {
      left: 8px;
      top: 8px;
      z-index: 10;
      background: var(--panel);
      padding: 8px;
    }
    @media print {
      :host {
        display: block;
        height: auto;
      }
    }
  `,
})
export class Root {
  protected readonly keys = inject(Keys);
  protected readonly undo = inject(Undo);

  constructor() {
    // Until it answers, this browser's own time zone is as good a guess as any.
    const shop = inject(ShopStore);
    shop.load().subscribe({ error: () => undefined });
    shop.loadCard().subscribe({ error: () => undefined });
    inject(NewInitials).begin();
  }
}
