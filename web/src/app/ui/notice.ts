import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { Message } from 'primeng/message';

/** A line that must be seen: what is wrong, what to look out for, or that something was kept. Nothing while it is empty. */
@Component({
  selector: 'iso-notice',
  imports: [Message],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (text()) {
      <p-message [attr.role]="kind() === 'told' ? 'status' : 'alert'" [severity]="severity[kind()]" [text]="text() ?? ''" />
    }
  `,
  styles: `
    :host {
      display: block;
    }
    :host:empty {
      display: none;
    }
  `,
})
export class Notice {
  readonly text = input<string | null | undefined>('');
  readonly kind = input<'fault' | 'caution' | 'told'>('fault');
  protected readonly severity = { fault: 'error', caution: 'warn', told: 'info' } as const;
}
