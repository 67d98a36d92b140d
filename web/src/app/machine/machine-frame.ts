import { ChangeDetectionStrategy, Component, type OnDestroy, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink, RouterOutlet } from '@angular/router';
import type { ApiFailure } from '../data/api';
import { AtHand } from '../shell/at-hand';
import { MachineStore } from './machine-store';
import { Ladder } from './ladder';
import { Button } from '../ui/controls';
import { Drawer } from '../ui/drawer';
import { PrintHead } from '../shell/print-head';

/** A machine's own frame: its ladder on the left, the work beside it. */
@Component({
  selector: 'iso-machine-frame',
  imports: [RouterOutlet, RouterLink, Ladder, Button, PrintHead, Drawer],
  providers: [MachineStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (store.machine()) {
      <iso-ladder class="no-print" />
      <iso-print-head [card]="store.machine()?.card" [survey]="store.survey()?.title ?? ''" [limits]="store.survey()?.judge?.name ?? ''" />
      <div class="work"><router-outlet /></div>
      @if (hand.ladderOpen()) {
        <iso-drawer [heading]="store.machine()?.card?.number ?? ''" (closed)="hand.ladderOpen.set(false)">
          <iso-ladder class="drawn" (click)="leave($event)" />
        </iso-drawer>
      }
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
  protected readonly hand = inject(AtHand);

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

  /** Somewhere was chosen: the ladder has done its work. */
  protected leave(event: Event): void {
    if ((event.target as Element).closest('a')) this.hand.ladderOpen.set(false);
  }

  ngOnDestroy(): void {
    this.hand.ladderOpen.set(false);
    this.hand.machine.set(null);
    this.hand.doing.set('');
    this.hand.instrument.set('');
  }

  protected load(): void {
    this.failure.set('');
    this.store.load(this.machineId()).subscribe({ error: (failure: ApiFailure) => this.failure.set(failure.message) });
  }
}
