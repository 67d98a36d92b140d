import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Part } from '@isometra/contract';
import { MarkedPicture } from '../notes/marked-picture';
import { Button } from '../ui/controls';
import { glanceOf } from './part-words';

/** Parts in order, each with its number as it is painted on it; one of them is open, one comes next. */
@Component({
  selector: 'iso-part-rows',
  imports: [Button, MarkedPicture],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ol aria-label="Parts">
      @for (part of parts(); track part.id) {
        <li [class.next]="part.id === next()">
          <button pButton type="button" [attr.aria-current]="part.id === open() ? 'true' : null" (click)="chosen.emit(part)">
            <span class="number figures">{{ part.number }}</span>
            <span class="words"
              ><b>{{ part.details['name'] }}</b> <span class="soft">{{ part.fitted ? 'fitted' : glance(part) }}</span></span
            >
            @if (part.pictures[0]; as picture) {
              <iso-marked-picture [picture]="picture" />
            }
          </button>
        </li>
      }
    </ol>
  `,
  styles: `
    ol {
      display: grid;
      margin: 0;
      padding: 0;
      list-style: none;
    }
    button {
      display: grid;
      grid-template-columns: 46px minmax(0, 1fr) auto;
      gap: 10px;
      width: 100%;
      min-height: 52px;
      padding: 4px 8px;
      border: 0;
      border-top: 1px solid var(--line);
      background: none;
      color: var(--ink);
      text-align: left;
    }
    button[aria-current] {
      background: var(--paper);
      box-shadow: inset 4px 0 var(--blue);
    }
    .number {
      justify-self: center;
      min-width: 2.2em;
      padding: 3px 5px;
      border: 1px solid var(--ink);
      background: var(--paper);
      text-align: center;
    }
    .next .number {
      background: var(--yellow);
    }
    .words {
      display: grid;
      font: 400 0.875rem/1.3 var(--words);
    }
    b {
      font: 600 1.0625rem/1.2 var(--narrow);
    }
    iso-marked-picture {
      width: 52px;
      max-height: 40px;
      overflow: hidden;
    }
  `,
})
export class PartRows {
  readonly parts = input.required<readonly Part[]>();
  readonly open = input<string | null>(null);
  /** The part that comes next; null where none does. */
  readonly next = input<string | null>(null);
  readonly chosen = output<Part>();
  protected readonly glance = glanceOf;
}
