import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { homingFor, homingOf, owedAt, registerLog, registerValue, withCounted, type Owed } from '@isometra/work';
import { Rounds } from '../data/rounds';
import { MachineStore } from '../machine/machine-store';
import { Button } from '../ui/controls';
import { owedWords } from './register-words';

/** Registers that were changed and not taken up yet, wherever their machine is measured: each homing is ticked off here too. */
@Component({
  selector: 'iso-owed-homing',
  imports: [Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (owed of owing(); track owed.move.id) {
      <p>
        <b>{{ owed.use.name }} was set to {{ owed.value }}, and is not homed yet: {{ owed.words }}.</b> A round that is read before tells
        nothing of it.
      </p>
      <p class="acts no-print">
        @if (owed.homings) {
          <button pButton type="button" (click)="count(owed, 'homings')">Homed ({{ owed.use.homings }} of {{ owed.wants.times }})</button>
        }
        @if (owed.power) {
          <button pButton type="button" (click)="count(owed, 'power')">Off and on ({{ owed.use.power }} of {{ owed.wants.power }})</button>
        }
      </p>
    }
  `,
  styles: `
    p {
      margin: 0;
      padding-left: 10px;
      border-left: 5px solid var(--ink);
      font-size: 0.9375rem;
    }
    .acts {
      display: flex;
      gap: 8px;
      padding-top: 4px;
    }
  `,
})
export class OwedHoming {
  private readonly store = inject(MachineStore);
  private readonly rounds = inject(Rounds);

  private readonly homing = computed(() => homingOf(this.store.machine()?.card));
  protected readonly owing = computed(() =>
    owedAt(registerLog(this.store.all()), this.homing()).map((owed) => ({
      ...owed,
      words: owedWords(owed),
      value: owed.use.entered ? registerValue(owed.use.entered.value, owed.use) : '',
      wants: homingFor(owed.use, this.homing()),
    })),
  );

  /** The control was homed, or switched off and on: written on the card that the value was entered on. */
  protected count({ move }: Owed, which: 'homings' | 'power'): void {
    const [machineId, made] = [this.store.machine()?.id, move.made];
    if (machineId === undefined || !made?.register) return;
    this.rounds.putMove(machineId, { ...move, made: { ...made, register: withCounted(made.register, which) } }, true);
  }
}
