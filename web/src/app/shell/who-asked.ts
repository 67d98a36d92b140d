import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NewInitials } from '../data/new-initials';
import { Button } from '../ui/controls';

/** Initials that are new to the shop: somebody's own, or a typing mistake. Asked once, and in nobody's way. */
@Component({
  selector: 'iso-who-asked',
  imports: [Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (who.asked(); as asked) {
      <p role="status">
        <b>Nobody in this shop has used the initials {{ asked.initials }} before.</b>
        <button pButton type="button" (click)="who.add()">Add {{ asked.initials }} to the people</button>
        @for (other of asked.others.slice(0, 6); track other.initials) {
          <button pButton type="button" [title]="other.name" (click)="who.meant(other.initials)">I meant {{ other.initials }}</button>
        }
        <button pButton type="button" class="plain" (click)="who.settle()">Leave it</button>
      </p>
    }
  `,
  styles: `
    p {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 12px;
      align-items: center;
      margin: 0;
      padding: 8px 20px;
      border-top: 1px solid var(--edge);
      background: var(--panel);
    }
  `,
})
export class WhoAsked {
  protected readonly who = inject(NewInitials);
}
