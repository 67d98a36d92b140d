import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { enteredOn, homingOf, kappaByAxis, registerLog, registerValue, unsettledOf, type RegisterEntry } from '@isometra/work';
import { nowText } from '../data/clock';
import { Rounds } from '../data/rounds';
import { Settings } from '../data/settings';
import { meaningWords, owedWords } from './register-words';
import { MachineStore } from '../machine/machine-store';
import { Button } from '../ui/controls';
import { Escape } from '../ui/escape';
import { dateWords } from '../data/when';

/** What was entered into the registers of a control, newest first: the value before, the value after, and what reading again said. */
@Component({
  selector: 'iso-register-log',
  imports: [Escape, Button, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Registers of the control</h2>
    @for (open of open(); track open.name) {
      <p class="preview">
        {{ open.name }} is not right yet. The way back is always to its first old value: <b class="figures">{{ open.old }}</b>.
      </p>
    }
    @for (line of kappa(); track $index) {
      <p class="soft">{{ line }}</p>
    }
    @for (entry of entries(); track entry.id) {
      <div class="entry">
        <b>{{ entry.name }}</b>
        <span class="figures">{{ entry.old }} → {{ entry.value }}</span>
        <span class="soft">{{ entry.by }}, {{ entry.when }}{{ entry.where }}</span>
        <span>
          <a [routerLink]="entry.link">its change sheet</a>
          @if (entry.back) {
            <button pButton type="button" class="plain" (click)="asked.set(entry.id)">back to {{ entry.old }}</button>
          }
        </span>
        <span class="said">{{ entry.said }}</span>
        @if (asked() === entry.id) {
          <p class="preview" (isoEscape)="asked.set(null)">
            Type <b class="figures">{{ entry.old }}</b> into {{ entry.name }}, and {{ homing() }}. What is read through it has to be read
            again.
            <button pButton type="button" (click)="putBack(entry.of)">Entered</button>
            <button pButton type="button" class="plain" (click)="asked.set(null)">Cancel</button>
          </p>
        }
      </div>
    } @empty {
      <p class="soft">Nothing has been entered yet. A sweep that is out along the slide leads to an offset change sheet.</p>
    }
  `,
  styleUrl: '../planned/parts.css',
  styles: `
    .entry {
      grid-template-columns: 13em minmax(15em, auto) 1fr auto;
    }
    .entry .figures {
      white-space: nowrap;
    }
    .entry .said,
    .entry .preview {
      grid-column: 1 / -1;
    }
  `,
})
export class RegisterLog {
  private readonly store = inject(MachineStore);
  private readonly rounds = inject(Rounds);
  private readonly settings = inject(Settings);
  private readonly log = computed(() => registerLog(this.store.all()));
  /** The row whose value is to be put back. */
  protected readonly asked = signal<string | null>(null);
  /** What the control wants before it takes a value up. */
  protected readonly homing = computed(() => {
    const { times, power } = homingOf(this.store.machine()?.card);
    return owedWords({ homings: times, power }).replaceAll(' more', '');
  });
  protected readonly kappa = computed(() => {
    const card = (this.store.machine()?.card as Readonly<Record<string, unknown>> | undefined)?.['registers'];
    return Object.entries(kappaByAxis(this.log(), (card ?? []) as readonly { axis?: string; kappa?: string }[])).map(
      ([axis, kappa]) =>
        `References of axis ${axis}: the value goes ${kappa === 1 ? 'the way of the jog' : 'against the jog'} (κ ${kappa === 1 ? '+1' : '−1'}).`,
    );
  });
  private present(name: string): RegisterEntry | undefined {
    return this.log().findLast(({ use }) => use.name === name);
  }

  /** Whether there is anything to go back to: something else stands there now, and no later row goes back to the same. */
  private goesBack(of: RegisterEntry): boolean {
    const { name, old } = of.use;
    const own = this.log().filter(({ use }) => use.name === name);
    return (
      old !== null && this.present(name)?.use.entered?.value !== old.value && own.findLast(({ use }) => use.old?.value === old.value) === of
    );
  }

  /** What stood there before a change stands there again. It is written on the change sheet of the last one: nothing is forgotten. */
  protected putBack({ use }: RegisterEntry): void {
    const [last, machine] = [this.present(use.name)?.move, this.store.machine()];
    const sheet = last?.made?.register;
    if (!last?.made || !sheet || !use.old || !machine) return;
    const register = enteredOn(sheet, { value: use.old.value, how: 'back', at: nowText(), by: this.settings.by() });
    this.rounds.putMove(machine.id, { ...last, made: { ...last.made, register } }, true);
    this.asked.set(null);
  }
  /** What the round after a change says of it. */
  private said({ use, recheck }: RegisterEntry): string {
    if (use.entered?.how === 'back') return `Back at ${registerValue(use.entered.value, use)}.`;
    return recheck ? meaningWords(recheck, use, homingOf(this.store.machine()?.card)) : 'Not read again yet, with the axes homed.';
  }
  protected readonly open = computed(() => {
    const log = this.log();
    return Object.entries(unsettledOf(log)).flatMap(([name, { old }]) => {
      const use = log.find((entry) => entry.use.name === name)?.use;
      return use ? [{ name, old: registerValue(old.value, use) }] : [];
    });
  });
  protected readonly entries = computed(() =>
    [...this.log()].reverse().map((of) => {
      const { move, use } = of;
      return {
        of,
        id: `${move.id} ${use.entered?.at ?? ''}`,
        back: this.goesBack(of),
        name: use.name,
        old: use.old ? registerValue(use.old.value, use) : '',
        value: use.entered ? registerValue(use.entered.value, use) : '',
        by: use.entered?.by ?? '',
        when: dateWords(use.entered?.at ?? move.begunAt),
        where: use.old?.where ? `, read on ${use.old.where}` : '',
        said: this.said(of),
        link: ['/machines', this.store.machine()?.id, 'move', move.roundId, move.quantity],
      };
    }),
  );
}
