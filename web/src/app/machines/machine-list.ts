import { AsyncPipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Machine } from '@isometra/contract';
import { MACHINE_KINDS } from '@isometra/contract/machine-kinds';
import type { ApiFailure } from '../data/api';
import { Machines } from '../data/machines';
import { Button } from '../ui/controls';
import { Notice } from '../ui/notice';

/** The machines of the shop, as plates; and a way in when there are none. */
@Component({
  selector: 'iso-machine-list',
  imports: [AsyncPipe, RouterLink, Button, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './machine-list.html',
  styleUrl: './machine-list.css',
})
export class MachineList {
  private readonly store = inject(Machines);
  protected readonly machines$ = this.store.all$;
  protected readonly state = signal<'reading' | 'read' | 'failed'>('reading');
  protected readonly problem = signal('');
  protected readonly filling = signal(false);

  constructor() {
    this.load();
  }

  protected load(): void {
    this.state.set('reading');
    this.store.load().subscribe({
      next: () => this.state.set('read'),
      error: (failure: ApiFailure) => {
        this.problem.set(failure.message);
        this.state.set('failed');
      },
    });
  }

  protected fillDemo(): void {
    this.filling.set(true);
    this.store.fillDemo().subscribe({
      error: (failure: ApiFailure) => {
        this.filling.set(false);
        this.problem.set(failure.message);
      },
    });
  }

  protected kind(machine: Machine): string {
    return MACHINE_KINDS.find((kind) => kind.value === machine.card.kind)?.label ?? '';
  }

  protected facts(machine: Machine): string[] {
    const { swing, centreDistance, adjuster } = machine.card;
    const pitch = (adjuster as { pitch?: unknown } | undefined)?.pitch;
    return [
      swing && `swings ${withMm(swing)}`,
      centreDistance && `${withMm(centreDistance)} between centres`,
      pitch && `adjuster ${withMm(pitch)} pitch`,
    ].filter((fact): fact is string => !!fact);
  }
}

const withMm = (value: unknown): string => (/[a-z"]/i.test(String(value)) ? String(value) : `${String(value)} mm`);
