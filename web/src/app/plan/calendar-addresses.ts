import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { DueStore } from '../data/due';
import { GivenOut } from '../shop/given-out';

/** The calendar of the shop: downloaded, or read by another program under an address that can be revoked. */
@Component({
  selector: 'iso-calendar-addresses',
  imports: [GivenOut],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Calendar</h2>
    <p>Sessions as they are planned, what is waited for, and what is due.</p>
    <p><a class="act" href="/api/calendar.ics" download="isometra.ics">Download it</a></p>
    <h3>Addresses for other programs</h3>
    <iso-given-out [list]="addresses" [words]="words">
      <p class="soft">Whoever has the address can read the calendar, and nothing else.</p>
    </iso-given-out>
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      padding-left: 24px;
      border-left: 1px solid var(--line);
    }
    h2 {
      font-size: 1.125rem;
    }
    h3 {
      padding-top: 6px;
      font-size: 1rem;
    }
  `,
})
export class CalendarAddresses {
  protected readonly addresses = inject(DueStore).addresses;
  protected readonly words = {
    field: 'calendar-address',
    made: 'The new address.',
    revoke: 'Revoke the address of',
    label: 'Whose calendar',
    example: 'Kitchen tablet',
    question: 'Whose calendar is it?',
    make: 'Make an address',
  };
}
