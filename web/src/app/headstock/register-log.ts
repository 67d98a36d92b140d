import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { registerLog, registerValue, unsettledOf } from '@isometra/work';
import { Desk } from '../machine/desk';
import { meaningWords } from '../job/register-words';

/** What was entered into the registers of a control, newest first: the value before, the value after, and what reading again said. */
@Component({
  selector: 'iso-register-log',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Registers of the control</h2>
    @for (open of open(); track open.name) {
      <p class="preview">
        {{ open.name }} is not right yet. The way back is always to its first old value: <b class="figures">{{ open.old }}</b>.
      </p>
    }
    @for (entry of entries(); track entry.id) {
      <div class="entry">
        <b>{{ entry.name }}</b>
        <span class="figures">{{ entry.old }} → {{ entry.value }}</span>
        <span class="soft">{{ entry.by }}, {{ entry.when }}{{ entry.where }}</span>
        <span>{{ entry.said }}</span>
        <a [routerLink]="entry.link">its slip</a>
      </div>
    } @empty {
      <p class="soft">Nothing has been entered yet. A sweep that is out along the slide leads to a slip.</p>
    }
  `,
  styleUrl: './parts.css',
})
export class RegisterLog {
  private readonly desk = inject(Desk);
  private readonly log = computed(() => registerLog(this.desk.all()));
  protected readonly open = computed(() => {
    const log = this.log();
    return Object.entries(unsettledOf(log)).flatMap(([name, { old }]) => {
      const use = log.find((entry) => entry.use.name === name)?.use;
      return use ? [{ name, old: registerValue(old.value, use) }] : [];
    });
  });
  protected readonly entries = computed(() =>
    [...this.log()].reverse().map(({ move, use, recheck }) => ({
      id: move.id,
      name: use.name,
      old: use.old ? registerValue(use.old.value, use) : '',
      value: use.entered ? registerValue(use.entered.value, use) : '',
      by: use.entered?.by ?? '',
      when: new Date(use.entered?.at ?? move.begunAt).toLocaleDateString(undefined, { dateStyle: 'medium' }),
      where: use.old?.where ? `, read on ${use.old.where}` : '',
      said:
        use.entered?.how === 'back'
          ? 'Back at the first old value.'
          : recheck
            ? meaningWords(recheck, use)
            : 'Not read again yet, with the axes homed.',
      link: ['/machines', this.desk.machine()?.id, 'move', move.roundId, move.quantity],
    })),
  );
}
