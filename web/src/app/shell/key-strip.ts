import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Keys } from '../data/keys';

/** The keys that work right now. */
@Component({
  selector: 'iso-key-strip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul aria-label="Keys that work now">
      @for (hint of keys.all(); track hint.shown) {
        @if (!hint.quiet) {
          <li>
            <kbd>{{ hint.shown }}</kbd> {{ hint.does }}
          </li>
        }
      }
    </ul>
  `,
  styles: `
    :host {
      display: block;
      border-top: 1px solid var(--line);
      background: var(--sunk);
    }
    ul {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 20px;
      margin: 0;
      padding: 7px 20px;
      list-style: none;
      font-size: 0.875rem;
      color: var(--soft);
    }
    @media (max-width: 700px) {
      :host {
        display: none;
      }
    }
  `,
})
export class KeyStrip {
  protected readonly keys = inject(Keys);
}
