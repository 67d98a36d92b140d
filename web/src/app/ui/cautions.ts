import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** Cautions, near the hand that needs them. */
@Component({
  selector: 'iso-cautions',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul aria-label="Cautions">
      @for (caution of cautions(); track caution) {
        <li>{{ caution }}</li>
      }
    </ul>
    <p class="soft">Electrical isolation and lifting belong to licensed people, local codes and the builder’s manual.</p>
  `,
  styles: `
    :host {
      display: block;
      padding: 10px 14px;
      border-left: 6px solid var(--red);
      background: var(--panel);
      font-size: 0.9375rem;
    }
    ul {
      margin: 0 0 4px;
      padding-left: 18px;
    }
    p {
      font-size: 0.875rem;
    }
  `,
})
export class Cautions {
  readonly cautions = input.required<readonly string[]>();
}
