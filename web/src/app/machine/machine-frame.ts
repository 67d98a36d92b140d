import { ChangeDetectionStrategy, Component, type OnDestroy, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink, RouterOutlet } from '@angular/router';
import type { ApiFailure } from '../data/api';
import { AtHand } from '../shell/at-hand';
import { MachineStore } from './machine-store';
import { Ladder } from './ladder';
import { Button } from '../ui/controls';
import { PrintHead } from '../shell/print-head';

/** A machine's own frame: its ladder on the left, the work beside it. */
@Component({
  selector: 'iso-machine-frame',
  imports: [RouterOutlet, RouterLink, Ladder, Button, PrintHead],
  providers: [MachineStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (store.machine()) {
      <iso-ladder class="no-print" />
      <iso-print-head [card]="store.machine()?.card" [survey]="store.survey()?.title ?? ''" [limits]="store.survey()?.judge?.name ?? ''" />
      <div class="work"><router-outlet /></div>
    } @else if (failure(); as message) {
      <div class="empty">
        <h1>This machine cannot be shown</h1>
        <p>{{ message }}</p>
        <p><button pButton type="button" (click)="load()">Try again</button> <a class="act" routerLink="/machines">To the machines</a></p>
      </div>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 238px minmax(0, 1fr);
      min-height: 100%;
    }
    .work {
      min-width: 0;
    }
    .empty {
      grid-column: 1 / -1;
      display: grid;
      gap: 14px;
      align-content: start;
      padding: 48px;
    }
    @media (max-width: 900px) {
      :host {
        display: block;
      }
    }
    @media print {
      :host {
        display: block;
      }
    }
  `,
})
export class MachineFrame implements OnDestroy {
  readonly machineId = input.required<string>();
  protected readonly store = inject(MachineStore);
  protected readonly failure = signal('');
  private readonly hand = inject(AtHand);

  constructor() {
    effect(() => {
      this.machineId();
      untracked(() => this.load());
    });
    effect(() => {
      const machine = this.store.machine();
      if (machine) this.hand.nextCheck.set(this.store.next()?.checkId ?? null);
      this.hand.machine.set(machine && { id: machine.id, number: machine.card.number, nickname: machine.card.nickname ?? '' });
    });
  }

  ngOnDestroy(): void {
    this.hand.machine.set(null);
    this.hand.doing.set('');
    this.hand.instrument.set('');
  }

  protected load(): void {
    this.failure.set('');
    this.store.load(this.machineId()).subscribe({ error: (failure: ApiFailure) => this.failure.set(failure.message) });
  }
}
