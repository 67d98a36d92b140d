import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import type { StoredRound } from '@isometra/contract';
import type { ApiFailure } from '../data/api';
import { Rounds } from '../data/rounds';
import { dateWords } from '../data/when';
import { MachineStore } from '../machine/machine-store';
import { Button } from '../ui/controls';
import { Escape } from '../ui/escape';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';

/** A spoilt round: it is struck out with a reason, kept, and counted nowhere; and it can be taken back. */
@Component({
  selector: 'iso-struck',
  imports: [Escape, Button, Field, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (round().struck; as struck) {
      <iso-notice kind="caution" [text]="words(struck)" />
      <button pButton type="button" [disabled]="sending()" (click)="send(null)">Restore</button>
    } @else if (asking()) {
      <form class="line" novalidate (submit)="$event.preventDefault(); send(why())" (isoEscape)="asking.set(false)">
        <iso-field label="Reason" example="the bar was not home" [size]="30" [value]="why()" (typed)="why.set($event)" />
        <button pButton type="submit" [disabled]="sending()">Discard round</button>
        <button pButton type="button" class="plain" (click)="asking.set(false)">cancel</button>
      </form>
    } @else {
      <button pButton type="button" class="plain" (click)="asking.set(true)">Discard this round</button>
    }
    <iso-notice [text]="problem()" />
  `,
  styles: `
    .line {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
      align-items: baseline;
    }
  `,
})
export class Struck {
  readonly round = input.required<StoredRound>();
  private readonly rounds = inject(Rounds);
  private readonly machineStore = inject(MachineStore);
  protected readonly asking = signal(false);
  protected readonly sending = signal(false);
  protected readonly why = signal('');
  protected readonly problem = signal('');

  protected words({ why, by, at }: NonNullable<StoredRound['struck']>): string {
    return `This round was discarded by ${by} on ${dateWords(at)}: ${why}. It is kept in the notebook, but not used.`;
  }

  protected send(why: string | null): void {
    if (why !== null && !why.trim()) return this.problem.set('A reason is required. Example: the bar was not home');
    this.problem.set('');
    this.sending.set(true);
    this.rounds.strike(this.round(), why?.trim() ?? null).subscribe({
      next: () => {
        this.sending.set(false);
        this.asking.set(false);
        this.machineStore.refresh();
      },
      error: (failure: ApiFailure) => {
        this.sending.set(false);
        this.problem.set(failure.message);
      },
    });
  }
}
