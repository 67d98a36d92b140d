import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { parseQuantity, prettyUnit } from '@isometra/core';
import type { BearingNote } from '@isometra/work';
import { Settings } from '../data/settings';
import { SurveyChanges } from '../survey/survey-changes';
import { MachineStore } from '../machine/machine-store';
import { bothUnits } from '../ui/say';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';
import { dateWords } from '../data/when';

const TURNS = [0, 90, 180, 270] as const;
const NOT_FELT = -1;
const FELT = ['not felt', '0 free', '1 just felt', '2 light', '3 firm', '4 heavy', '5 stiff'].map((label, i) => ({
  value: i + NOT_FELT,
  label,
}));
const STIFF = 4;
const UNEVEN = 2;
const FLOAT = 20;

const STEPS = [
  'Isolate and lock out the machine. Belt off or slack, gears out of mesh: only the bearings are to be felt.',
  'Draw the thrust nut up by hand until the spindle just begins to drag as it is turned.',
  'Back it off until the drag is just gone, and lock it there. Locking draws it up a little: feel again.',
  'Indicator on the nose, along the axis. Push and pull the spindle with the same force: the swing is the end float.',
  'Turn by hand and feel the drag at four places of a turn: uneven drag is a bent spindle, an oval journal or dirt.',
  'Run it warm by its builder’s manual, then feel it again: a warm spindle has grown.',
] as const;

/** End float and preload of the thrust side, and how the bearings drag at several turns. */
@Component({
  selector: 'iso-bearing-card',
  imports: [Button, Field, Notice, Pick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>End float and drag</h2>
    <ol>
      @for (step of steps; track $index) {
        <li>{{ step }}</li>
      }
    </ol>
    <form (submit)="keep($event)" novalidate>
      <div class="row">
        <iso-field above label="End float" [example]="example()" [value]="endFloat()" (typed)="endFloat.set($event)" />
        @for (turn of turns; track turn) {
          <label
            ><span class="label">Drag at {{ turn }}°</span>
            <iso-pick [label]="'Drag at ' + turn + '°'" [options]="felt" [value]="drag().get(turn) ?? -1" (chosen)="feel(turn, $event)"
          /></label>
        }
      </div>
      <iso-field above wide label="Note" name="Note on the bearings" [most]="300" [value]="note()" (typed)="note.set($event)" />
      <iso-notice [text]="fault()" />
      <p><button pButton type="submit">Write it down</button></p>
    </form>
    @for (entry of log(); track entry.id) {
      <p>
        <b>{{ entry.when }}, {{ entry.by }}:</b> {{ entry.text }}
        @if (entry.warning) {
          <span class="fault">{{ entry.warning }}</span>
        }
      </p>
    }
  `,
  styleUrl: './parts.css',
})
export class BearingCard {
  private readonly store = inject(MachineStore);
  private readonly changes = inject(SurveyChanges);
  private readonly settings = inject(Settings);
  protected readonly steps = STEPS;
  protected readonly turns = TURNS;
  protected readonly felt = FELT;
  protected readonly endFloat = signal('');
  protected readonly drag = signal<ReadonlyMap<number, number>>(new Map());
  protected readonly note = signal('');
  protected readonly fault = signal('');
  private readonly unit = computed(() => (this.settings.system() === 'mm' ? 'mm' : 'thou'));
  protected readonly example = computed(() => (this.settings.system() === 'mm' ? '0.008 mm' : '0.3 thou'));

  protected readonly log = computed(() => [...(this.store.survey()?.bearings ?? [])].reverse().map((entry) => this.told(entry)));

  private told({ id, at, by, endFloat, drag, note }: BearingNote) {
    const float = endFloat === null ? undefined : parseQuantity(endFloat, 'deviation');
    const shown = this.settings.shown();
    const sizes = drag.map((entry) => entry.drag);
    const parts = [
      float?.ok ? `end float ${bothUnits(float.value, 'deviation', shown, 1).large}` : '',
      sizes.length ? `drag ${sizes.join(', ')}` : '',
      note ?? '',
    ].filter(Boolean);
    return {
      id,
      by,
      when: dateWords(at),
      text: parts.join('; '),
      warning: warning(float?.ok ? float.value : 0, sizes),
    };
  }

  protected feel(turn: number, drag: number): void {
    const felt = new Map(this.drag()).set(turn, drag);
    if (drag === NOT_FELT) felt.delete(turn);
    this.drag.set(felt);
  }

  protected keep(event: Event): void {
    event.preventDefault();
    const text = this.endFloat().trim();
    const float = text ? parseQuantity(text, 'deviation', this.unit()) : undefined;
    if (float && (!float.ok || float.value < 0)) {
      this.fault.set(`End float ${float.ok ? 'cannot be less than nothing' : float.message}. Example: ${this.example()}`);
      return;
    }
    const drag = [...this.drag()].map(([turn, drag]) => ({ turn, drag }));
    if (!float && drag.length === 0) {
      this.fault.set(`Nothing has been felt yet: give the end float or the drag at one place. Example: ${this.example()}`);
      return;
    }
    const content = { endFloat: float?.ok ? `${float.value} ${prettyUnit('um')}` : null, drag, note: this.note().trim() || null };
    this.changes.note({ kind: 'bearing', content }, 'Written down.');
    this.fault.set('');
    this.endFloat.set('');
    this.drag.set(new Map());
    this.note.set('');
  }
}

/** What the hand felt that should not be: stiff, uneven, or loose along the axis. */
function warning(float: number, drags: readonly number[]): string {
  if (drags.length && Math.max(...drags) >= STIFF && float > FLOAT)
    return 'Loose and stiff at once: stop. Something is bent or dirty; tightening would seize it.';
  if (drags.length && Math.max(...drags) >= STIFF) return 'Stiff: back the nut off before it runs warm.';
  if (drags.length > 1 && Math.max(...drags) - Math.min(...drags) >= UNEVEN)
    return 'Uneven over a turn: look for a bent spindle, an oval journal or dirt.';
  return '';
}
