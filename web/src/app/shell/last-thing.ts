import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Undo } from '../data/undo';
import { Button } from '../ui/controls';

/** What was just done, with its way back, for ten seconds. */
@Component({
  selector: 'iso-last-thing',
  imports: [Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p role="status">
      @if (undo.last(); as thing) {
        <span>{{ thing.done }}: done.</span>
        <button pButton type="button" class="plain" (click)="undo.takeBack()">Undo <kbd>Ctrl Z</kbd></button>
      } @else if (undo.told()) {
        <span>{{ undo.told() }}</span>
      }
    </p>
  `,
  styles: `
    p {
      display: flex;
      gap: 10px;
      align-items: center;
      margin: 0;
    }
    /* Over the end of the key strip: nothing moves under the hand. */
    p:has(span) {
      position: absolute;
      right: 0;
      bottom: 0;
      max-width: 100%;
      padding: 2px 16px;
      background: var(--panel);
      border: 1px solid var(--edge);
      font-size: 0.9375rem;
    }
    @media (max-width: 700px) {
      p:has(span) {
        position: static;
      }
    }
  `,
})
export class LastThing {
  protected readonly undo = inject(Undo);
}
