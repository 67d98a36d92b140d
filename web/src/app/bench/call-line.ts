import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import type { Verdict } from '@isometra/core';
import { Settings } from '../data/settings';
import { Button } from '../ui/controls';
import { Glyph } from '../ui/glyph';
import { callClause } from '../ui/say';
import { BenchStore } from './bench-store';

/** What matters most comes first. */
const WEIGHT: Readonly<Record<Verdict, number>> = { out: 0, unsure: 1, in: 2 };

/** The call in one line, for a screen on which the result lies below the readings: it stays in sight while they are taken. */
@Component({
  selector: 'iso-call-line',
  imports: [Button, Glyph],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button pButton type="button" aria-label="To the result" (click)="opened.emit()">
      @if (call(); as found) {
        <iso-glyph [state]="found.state" [size]="20" /> <span>{{ found.text }}</span>
        @if (found.more) {
          <b>+{{ found.more }}</b>
        }
      } @else {
        <span>No result yet</span>
      }
    </button>
  `,
  styles: `
    :host {
      display: block;
    }
    button {
      display: flex;
      gap: 8px;
      justify-content: flex-start;
      width: 100%;
      min-height: 44px;
      padding: 0 10px;
      text-align: left;
    }
    span {
      flex: 1;
      min-width: 0;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
})
export class CallLine {
  readonly opened = output();
  private readonly store = inject(BenchStore);
  private readonly settings = inject(Settings);

  protected readonly call = computed(() => {
    const { finding } = this.store.solved();
    const check = this.store.check();
    const judged = Object.entries(finding?.quantities ?? {}).flatMap(([name, quantity]) =>
      quantity.verdict === null ? [] : [{ name, quantity, state: quantity.verdict }],
    );
    const [first] = [...judged].sort((one, other) => WEIGHT[one.state] - WEIGHT[other.state]);
    if (!first || !check) return undefined;
    const alike = judged.filter(({ state }) => state === first.state).length - 1;
    return { state: first.state, text: callClause(first.quantity, check.quantities[first.name], this.settings.shown()), more: alike };
  });
}
