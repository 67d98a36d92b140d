import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { KitItem } from '@isometra/contract';
import type { ApiFailure } from '../data/api';
import { Kit } from '../data/kit';
import { KitCard } from './kit-card';

/** Dials, micrometers and the shim drawer. */
@Component({
  selector: 'iso-kit-list',
  imports: [KitCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h1>Kit</h1>
      <button type="button" (click)="add('instrument')">Add an instrument</button>
      <button type="button" (click)="add('shim-stock')">Add a shim drawer</button>
    </header>
    @if (problem()) {
      <p role="alert">{{ problem() }}</p>
    }
    @if (kit().length === 0 && !adding()) {
      <p class="soft">
        No instrument yet. Add the indicator you read with: what one division is, and how far you can read between divisions.
      </p>
    }
    @if (adding(); as item) {
      <iso-kit-card [item]="item" (done)="adding.set(null)" />
    }
    @for (item of kit(); track item.id) {
      <iso-kit-card [item]="item" (done)="adding.set(null)" />
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 14px;
      max-width: 1080px;
      padding: 26px 32px 40px;
    }
    header {
      display: flex;
      gap: 12px;
      align-items: center;
    }
    h1 {
      margin-right: auto;
    }
  `,
})
export class KitList {
  private readonly store = inject(Kit);
  protected readonly kit = toSignal(this.store.all$, { initialValue: [] as readonly KitItem[] });
  protected readonly adding = signal<KitItem | null>(null);
  protected readonly problem = signal('');

  constructor() {
    this.store.load().subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
  }

  protected add(kind: KitItem['kind']): void {
    this.adding.set({
      id: crypto.randomUUID(),
      kind,
      name: '',
      data: kind === 'instrument' ? { kind: 'lever' } : { stock: [] },
      version: 0,
    });
  }
}
