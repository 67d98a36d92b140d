import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { Device, Lan, PairingCode } from '@isometra/contract';
import type { ApiFailure } from '../data/api';
import { Network } from '../data/network';
import { timeWords } from '../data/when';
import { Button } from '../ui/controls';
import { Notice } from '../ui/notice';

/** Phones and tablets at the machines: where they find the shop, the code that lets one in, and which are let in. */
@Component({
  selector: 'iso-phones',
  imports: [Button, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (lan(); as found) {
      @if (found.on) {
        <section aria-label="Phones and tablets">
          <h2>Phones and tablets</h2>
          <div class="beside">
            <img [src]="picture()" width="132" height="132" [alt]="'The address ' + found.address + ' to be photographed'" />
            <div class="words">
              <p>
                In this network they find the shop at <b class="figures">{{ found.address }}</b>. Each one is asked once for a code.
              </p>
              @if (code(); as given) {
                <p role="status">
                  Code <b class="code figures">{{ given.code.slice(0, 3) }} {{ given.code.slice(3) }}</b> lets one device in, until
                  {{ time(given.until) }}. Three wrong tries end it.
                </p>
              }
              <p>
                <button pButton type="button" (click)="give()">{{ code() ? 'A new code' : 'Let a device in' }}</button>
              </p>
            </div>
          </div>
          <ul>
            @for (device of devices(); track device.id) {
              <li>
                <b>{{ device.name }}</b>
                <span class="soft">let in {{ time(device.pairedAt) }}, last here {{ time(device.seenAt) }}</span>
                @if (asked() === device.id) {
                  <span
                    >It is let in no more from its next step on. What waits in it stays there.
                    <button pButton type="button" (click)="revoke(device)">Shut {{ device.name }} out</button>
                    <button pButton type="button" class="plain" (click)="asked.set(null)">cancel</button></span
                  >
                } @else {
                  <button pButton type="button" class="plain" (click)="asked.set(device.id)" [attr.aria-label]="'Shut out ' + device.name">
                    shut out
                  </button>
                }
              </li>
            } @empty {
              <li class="soft">No device has been let in yet.</li>
            }
          </ul>
          <iso-notice [text]="problem()" />
        </section>
      } @else {
        <p class="soft">Phones and tablets at the machines: started with <code>npm start -- --lan</code>, Isometra lets them in.</p>
      }
    }
  `,
  styles: `
    section {
      display: grid;
      gap: 10px;
      margin-top: 20px;
      padding-top: 14px;
      border-top: 1px solid var(--line);
    }
    .beside {
      display: flex;
      flex-wrap: wrap;
      gap: 16px;
    }
    .words {
      display: grid;
      flex: 1;
      gap: 8px;
      align-content: start;
      min-width: 240px;
    }
    .code {
      font-size: 1.625rem;
    }
    p,
    ul {
      margin: 0;
    }
    ul {
      display: grid;
      gap: 4px;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 12px;
      align-items: baseline;
    }
  `,
})
export class Phones {
  private readonly network = inject(Network);
  protected readonly lan = signal<Lan | null>(null);
  protected readonly devices = signal<readonly Device[]>([]);
  protected readonly code = signal<PairingCode | null>(null);
  protected readonly asked = signal<string | null>(null);
  protected readonly problem = signal('');
  protected readonly time = timeWords;
  protected readonly picture = computed(() => `data:image/svg+xml,${encodeURIComponent(this.lan()?.picture ?? '')}`);

  constructor() {
    // Where the shop cannot be asked the list of machines says so.
    this.network.lan().subscribe({
      next: (lan) => {
        this.lan.set(lan);
        if (lan.on) this.look();
      },
      error: () => undefined,
    });
  }

  private readonly failed = { error: (failure: ApiFailure): void => this.problem.set(failure.message) };

  private look(): void {
    this.network.devices().subscribe({ next: (devices) => this.devices.set(devices), ...this.failed });
  }

  protected give(): void {
    this.problem.set('');
    this.network.code().subscribe({ next: (code) => this.code.set(code), ...this.failed });
    this.look();
  }

  protected revoke({ id }: Device): void {
    this.problem.set('');
    this.asked.set(null);
    this.network.revoke(id).subscribe({ next: (devices) => this.devices.set(devices), ...this.failed });
  }
}
