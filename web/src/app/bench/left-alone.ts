import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { type Quantity, type QuantityInfo, sentence, sizesIn } from '@isometra/core';
import { Settings } from '../data/settings';
import { Surveys } from '../data/surveys';
import { MachineStore } from '../machine/machine-store';
import { bothUnits } from '../ui/say';
import { BenchStore } from './bench-store';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Escape } from '../ui/escape';
import { Notice } from '../ui/notice';

/** A value that is not in, taken as too small to matter: with what it does to the work, and a reason. */
@Component({
  selector: 'iso-left-alone',
  imports: [Escape, Button, Field, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (accepted(); as known) {
      <p>
        Left alone on purpose: {{ known.why }} <span class="soft">({{ known.by }})</span>
        <button pButton type="button" class="plain" (click)="takeBack()">undo</button>
      </p>
    } @else if (open()) {
      <form (submit)="accept($event)" (isoEscape)="open.set(false)">
        @if (effect()) {
          <p>{{ effect() }}</p>
        }
        <iso-field
          above
          wide
          label="Why it may stay"
          [most]="150"
          example="only short work on this machine"
          [value]="why()"
          (typed)="why.set($event)"
        />
        <p class="acts">
          <button pButton type="submit">Leave it alone</button>
          <button pButton type="button" (click)="open.set(false)">Cancel</button>
        </p>
      </form>
    } @else {
      <button pButton type="button" class="plain" (click)="open.set(true)">Leave it as it is, with a reason</button>
    }
    <iso-notice [text]="problem()" />
  `,
  styles: `
    :host {
      display: block;
      font-size: 0.9375rem;
    }
    form {
      display: grid;
      gap: 8px;
      padding: 8px 0;
    }
    .acts {
      display: flex;
      gap: 8px;
    }
    .fault {
      color: var(--red);
      font-weight: 600;
    }
  `,
})
export class LeftAlone {
  readonly name = input.required<string>();
  readonly quantity = input.required<Quantity>();
  readonly info = input.required<QuantityInfo>();
  private readonly store = inject(BenchStore);
  private readonly machineStore = inject(MachineStore);
  private readonly surveys = inject(Surveys);
  private readonly settings = inject(Settings);
  protected readonly open = signal(false);
  protected readonly why = signal('');
  protected readonly problem = signal('');

  private readonly survey = computed(
    () => this.machineStore.surveys().find((entry) => entry.id === this.store.round()?.surveyId) ?? this.machineStore.survey(),
  );
  protected readonly accepted = computed(() =>
    this.survey()?.accepted.find((entry) => entry.roundId === this.store.round()?.id && entry.quantity === this.name()),
  );

  /** What the value does to work, as far as the check knows. */
  protected readonly effect = computed(() => {
    const work = this.info().work;
    if (!work) return '';
    const size = bothUnits(Math.abs(this.quantity().value) * work.perUnit, 'deviation', this.settings.shown(), 1).large;
    return `It leaves ${size} ${sentence(work.what, sizesIn(this.settings.shown()))}.`;
  });

  protected accept(event: Event): void {
    event.preventDefault();
    const [survey, round] = [this.survey(), this.store.round()];
    const reason = this.why().trim();
    if (!reason) return this.problem.set('Say why it may stay. Example: only short work on this machine');
    if (!survey || !round) return this.problem.set('This round belongs to no survey that is known here: load the page again.');
    const why = [reason, this.effect()].filter(Boolean).join('. ').slice(0, 200);
    this.surveys.note(survey, { kind: 'acceptance', content: { check: round.check, quantity: this.name(), roundId: round.id, why } });
    this.close();
  }

  protected takeBack(): void {
    const [survey, known] = [this.survey(), this.accepted()];
    if (survey && known) this.surveys.note(survey, { kind: 'withdrawn', content: {} }, known.id);
  }

  private close(): void {
    this.problem.set('');
    this.open.set(false);
    this.why.set('');
  }
}
