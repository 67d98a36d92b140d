import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { ApiFailure } from '../data/api';
import { DueStore } from '../data/due';
import { dateWords } from '../data/when';
import { Button, TextField } from '../ui/controls';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';

/** The calendar of the shop: downloaded, or read by another program under an address that can be revoked. */
@Component({
  selector: 'iso-calendar-addresses',
  imports: [Button, Field, Notice, TextField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Calendar</h2>
    <p>Sessions as they are planned, what is waited for, and what is due.</p>
    <p><a class="act" href="/api/calendar.ics" download="isometra.ics">Download it</a></p>
    <h3>Addresses for other programs</h3>
    @if (made(); as address) {
      <label for="calendar-address">The new address. It is shown this once: copy it now.</label>
      <input pInputText id="calendar-address" type="text" readonly [value]="address" (focus)="$any($event.target).select()" />
    }
    @for (address of addresses(); track address.id) {
      <div class="row">
        <span
          ><b>{{ address.name }}</b> <span class="soft">{{ address.by }}, {{ day(address.at) }}</span></span
        >
        <button
          pButton
          type="button"
          class="plain"
          [attr.aria-label]="'Revoke the address of ' + address.name"
          (click)="revoke(address.id)"
        >
          Revoke
        </button>
      </div>
    }
    <form (submit)="make($event)" novalidate>
      <iso-field
        above
        label="Whose calendar"
        example="Kitchen tablet"
        [most]="60"
        [size]="18"
        [value]="name()"
        (typed)="name.set($event)"
      />
      <button pButton type="submit">Make an address</button>
    </form>
    <p class="soft">Whoever has the address can read the calendar, and nothing else.</p>
    <iso-notice [text]="problem()" />
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
    input {
      width: 100%;
      font-size: 0.8125rem;
    }
    form,
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
      align-items: end;
      justify-content: space-between;
    }
  `,
})
export class CalendarAddresses {
  private readonly store = inject(DueStore);
  protected readonly day = dateWords;
  protected readonly name = signal('');
  protected readonly problem = signal('');
  private readonly path = signal('');
  protected readonly made = computed(() => (this.path() ? `${location.origin}${this.path()}` : ''));
  protected readonly addresses = toSignal(this.store.addresses$, { initialValue: [] });

  constructor() {
    this.store.loadAddresses().subscribe({ error: this.failed });
  }

  private readonly failed = (failure: ApiFailure): void => this.problem.set(failure.message);

  protected make(event: Event): void {
    event.preventDefault();
    this.problem.set('');
    const name = this.name().trim();
    if (!name) return this.problem.set('Whose calendar is it? Example: Kitchen tablet');
    this.store.makeAddress(name).subscribe({
      next: ({ address }) => {
        this.path.set(address);
        this.name.set('');
      },
      error: this.failed,
    });
  }

  protected revoke(id: string): void {
    this.problem.set('');
    this.path.set('');
    this.store.revoke(id).subscribe({ error: this.failed });
  }
}
