import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output, signal } from '@angular/core';
import { gibNext, screwOrder } from '@isometra/core';
import type { Made } from '@isometra/contract';
import { Choices, type Choice } from '../ui/choices';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { counted } from '../ui/say';

type Felt = NonNullable<Made['felt']>;

const DRAGS: readonly Choice<number>[] = ['free', 'light', 'some', 'good', 'heavy', 'stiff'].map((label, value) => ({ value, label }));

const given = (eighths: number): string => `${counted(Math.abs(eighths), 'eighth')} of a turn${eighths < 0 ? ' back' : ''}`;

/** A gib as it is driven: eighths of a turn, and the drag after each. What was given and felt is kept on the card. */
@Component({
  selector: 'iso-gib-felt',
  imports: [Button, Choices, Field, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-label="The gib, by feel">
      <h2>{{ heading() }}</h2>
      <p class="now">{{ now() }}</p>
      @if (lines().length) {
        <ol>
          @for (line of lines(); track $index) {
            <li>{{ line }}</li>
          }
        </ol>
      }
      <p class="acts no-print">
        @if (screws()) {
          <iso-field label="screw" name="Screw" [size]="3" [value]="screw()" (typed)="screw.set($event)" />
        }
        <iso-field
          label="given"
          name="Eighths of a turn given"
          [size]="4"
          example="1, or -1 back"
          [value]="eighths()"
          (typed)="eighths.set($event)"
        />
        <span>eighths; drag over the travel</span>
        <iso-choices label="Drag felt after it" [options]="drags" [value]="drag()" (chosen)="drag.set($any($event))" />
        <button pButton type="button" (click)="add()">Write it down</button>
        @if (felt().length) {
          <button pButton type="button" class="plain" (click)="changed.emit(felt().slice(0, -1))">undo the last one</button>
        }
      </p>
      <iso-notice [text]="problem()" />
    </section>
  `,
  styleUrl: './job-panel.css',
})
export class GibFelt {
  /** Eighths that the plan asks for in all; undefined where the gib is not known. */
  readonly asked = input<number>();
  /** How many screws a straight gib has; undefined for a taper gib, which has one. */
  readonly screws = input<number>();
  readonly felt = input<Felt>([]);
  readonly changed = output<Felt>();

  protected readonly drags = DRAGS;
  protected readonly drag = signal<number | null>(null);
  protected readonly problem = signal('');
  private readonly next = computed(() => gibNext(this.screws() ? undefined : this.asked(), this.felt()));
  protected readonly heading = computed(() => {
    const { given: all } = this.next();
    const asked = this.screws() ? undefined : this.asked();
    if (this.screws()) return 'Screw by screw, by feel';
    return asked === undefined ? `Given so far: ${given(all)}` : `Given so far: ${all} of ${counted(asked, 'eighth')}`;
  });
  /** The screw of a straight gib that is set next. */
  private readonly nextScrew = computed(() => {
    const order = screwOrder(this.screws() ?? 1);
    return order[this.felt().length % order.length];
  });
  protected readonly now = computed(() => {
    const { now, why } = this.next();
    if (this.screws()) return `Next is screw ${this.nextScrew()}: in until it just drags, back an eighth, nut tight, then feel.`;
    if (why === 'stiff') return 'Stiff: one eighth back now, then feel the whole travel again.';
    if (why === 'by-feel') return 'As far as it goes by feel: an eighth more was stiff. Small end snug, then push and pull in a new round.';
    if (why === 'all-given') return 'That is all of it: small end snug, run the whole travel, then push and pull in a new round.';
    return `Now ${given(now)}, then feel the drag over the whole travel.`;
  });
  protected readonly lines = computed(() =>
    this.felt().map(
      ({ eighths, drag, screw }) =>
        `${screw === undefined ? '' : `screw ${screw}: `}${given(eighths)}, then ${DRAGS[Math.round(drag)].label} (${drag})`,
    ),
  );
  protected readonly eighths = linkedSignal(() => (this.screws() || this.next().now === 0 ? '' : String(this.next().now)));
  protected readonly screw = linkedSignal(() => String(this.nextScrew()));

  protected add(): void {
    const [eighths, screw, drag] = [Number(this.eighths().trim().replace('−', '-')), Number(this.screw()), this.drag()];
    const most = this.screws();
    if (!this.eighths().trim() || !Number.isInteger(eighths) || Math.abs(eighths) > 40 || eighths === 0)
      return this.problem.set('Eighths of a turn given: must be a whole number, − for back. Example: 1');
    if (most !== undefined && (!Number.isInteger(screw) || screw < 1 || screw > most))
      return this.problem.set(`Screw: must be from 1 to ${most}. Example: ${this.nextScrew()}`);
    if (drag === null) return this.problem.set('Drag felt after it: must be chosen. Run the slide by hand over its whole travel first.');
    this.problem.set('');
    this.drag.set(null);
    this.changed.emit([...this.felt(), { eighths, drag, ...(most !== undefined && { screw }) }]);
  }
}
