import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { StateThen } from '@isometra/contract';
import { timeWords } from '../data/when';
import { Button } from '../ui/controls';

/** What is shown is not how it stands now: since when, by whom, and the way back. */
@Component({
  selector: 'iso-as-it-stood',
  imports: [Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p role="status">{{ words() }} <button pButton type="button" class="plain" (click)="back.emit()">Back to how it stands now</button></p>
  `,
  styles: `
    p {
      margin: 0;
      padding: 8px 12px;
      border-left: 6px solid var(--yellow);
      background: var(--panel);
      font-weight: 600;
    }
  `,
})
export class AsItStood {
  readonly then = input.required<StateThen>();
  readonly back = output<void>();
  protected readonly words = computed(() => {
    const { at, by } = this.then();
    return at === null
      ? 'This is how it stood before its first change.'
      : `This is how it stood after the change of ${timeWords(at)} by ${by}.`;
  });
}
