import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import type { StoredRound } from '@isometra/contract';
import { timeInShop } from '@isometra/work';
import type { ApiFailure } from '../data/api';
import { nowText } from '../data/clock';
import { Rounds } from '../data/rounds';
import { shopZone, timeWords, today } from '../data/when';
import { MachineStore } from '../machine/machine-store';
import { Button } from '../ui/controls';
import { Day } from '../ui/day';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';

/** A round that is dated later than now: when it was really read is asked for, and until that is told there is no call. */
@Component({
  selector: 'iso-redate',
  imports: [Button, Day, Field, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <iso-notice kind="caution" [text]="question()" />
    <p class="line">
      <label for="redate-day">Day</label>
      <iso-day inputId="redate-day" label="the day" [value]="day()" [placeholder]="today()" (changed)="day.set($event)" />
      <iso-field label="Time of day" example="18:40" [size]="6" [value]="clock()" (typed)="clock.set($event)" />
    </p>
    <p class="line">
      <iso-field label="Why" example="the clock was wrong" [size]="20" [value]="why()" (typed)="why.set($event)" />
      <button pButton type="button" class="next" [disabled]="sending()" (click)="send()">Correct the date</button>
    </p>
    <iso-notice [text]="problem()" />
  `,
  styles: `
    :host {
      display: block;
      padding: 12px 20px;
    }
    .line {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
      align-items: baseline;
      margin: 12px 0 0;
    }
  `,
})
export class PutDateRight {
  readonly round = input.required<StoredRound>();
  private readonly rounds = inject(Rounds);
  private readonly machineStore = inject(MachineStore);
  protected readonly day = signal('');
  protected readonly clock = signal('');
  protected readonly why = signal('');
  protected readonly problem = signal('');
  protected readonly sending = signal(false);
  protected readonly today = today;
  protected readonly question = computed(
    () =>
      `This round is dated ${timeWords(this.round().at)}, and it is only ${timeWords(nowText())}. It is not judged until its date is right. When was it read?`,
  );

  protected send(): void {
    const [at, why] = [timeInShop(this.day(), this.clock(), shopZone()), this.why().trim()];
    if (at === undefined) return this.problem.set(`Day and time of day are needed: ${today()} and 18:40.`);
    if (at > nowText()) return this.problem.set(`${timeWords(at)} is still to come. Give the day and time that it was read.`);
    if (!why) return this.problem.set('Say why the date was wrong, for the log.');
    this.problem.set('');
    this.sending.set(true);
    this.rounds.redate(this.round(), at, why).subscribe({
      next: () => this.machineStore.refresh(),
      error: (failure: ApiFailure) => {
        this.sending.set(false);
        this.problem.set(failure.message);
      },
    });
  }
}
