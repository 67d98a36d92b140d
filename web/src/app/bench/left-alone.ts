import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import type { Quantity, QuantityInfo } from '@isometra/core';
import type { ApiFailure } from '../data/api';
import { Settings } from '../data/settings';
import { Surveys, sent } from '../data/surveys';
import { Desk } from '../tailstock/desk';
import { bothUnits } from '../ui/say';
import { BenchStore } from './bench-store';

/** A value that is not in, taken as too small to matter: with what it does to the work, and a reason. */
@Component({
  selector: 'iso-left-alone',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (accepted(); as known) {
      <p>
        Left alone on purpose: {{ known.why }} <span class="soft">({{ known.by }})</span>
        <button type="button" class="plain" (click)="takeBack()">take that back</button>
      </p>
    } @else if (open()) {
      <form (submit)="accept($event)">
        @if (effect()) {
          <p>{{ effect() }}</p>
        }
        <label
          ><span class="label">Why it may stay</span>
          <input
            type="text"
            maxlength="150"
            placeholder="only short work on this machine"
            aria-label="Why it may stay"
            [value]="why()"
            (input)="why.set($any($event.target).value)"
        /></label>
        <p class="acts">
          <button type="submit">Leave it alone</button>
          <button type="button" (click)="open.set(false)">Not after all</button>
        </p>
      </form>
    } @else {
      <button type="button" class="plain" (click)="open.set(true)">Too small to matter?</button>
    }
    @if (problem()) {
      <p class="fault" role="alert">{{ problem() }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
      font-size: 15px;
    }
    form {
      display: grid;
      gap: 8px;
      padding: 8px 0;
    }
    label {
      display: grid;
      gap: 4px;
    }
    input {
      width: 100%;
      font-family: var(--words);
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
  private readonly desk = inject(Desk);
  private readonly surveys = inject(Surveys);
  private readonly settings = inject(Settings);
  protected readonly open = signal(false);
  protected readonly why = signal('');
  protected readonly problem = signal('');

  private readonly survey = computed(() => this.desk.surveys().find((entry) => entry.id === this.store.round()?.surveyId));
  protected readonly accepted = computed(() =>
    this.survey()?.accepted.find((entry) => entry.roundId === this.store.round()?.id && entry.quantity === this.name()),
  );

  /** What the value does to work, as far as the check knows. */
  protected readonly effect = computed(() => {
    const work = this.info().work;
    if (!work) return '';
    const size = bothUnits(
      Math.abs(this.quantity().value) * work.perUnit,
      'deviation',
      { system: this.settings.system(), fineness: this.settings.fineness() },
      1,
    ).large;
    return `It leaves ${size} ${work.what}.`;
  });

  protected accept(event: Event): void {
    event.preventDefault();
    const [survey, round] = [this.survey(), this.store.round()];
    const why = this.why().trim();
    if (!why) return this.problem.set('Say why it may stay. Try: only short work on this machine');
    if (!survey || !round) return this.problem.set('This round belongs to no survey that is known here: load the page again.');
    const entry = {
      check: round.check,
      quantity: this.name(),
      roundId: round.id,
      why: [why, this.effect()].filter(Boolean).join('. ').slice(0, 200),
      by: this.settings.by(),
      at: new Date().toISOString(),
    };
    this.save([...survey.accepted, entry]);
  }

  protected takeBack(): void {
    const known = this.accepted();
    this.save((this.survey()?.accepted ?? []).filter((entry) => entry !== known));
  }

  private save(accepted: NonNullable<ReturnType<typeof this.survey>>['accepted']): void {
    const survey = this.survey();
    if (!survey) return;
    this.surveys.change(sent({ ...survey, accepted })).subscribe({
      next: (saved) => {
        this.desk.keep(saved);
        this.problem.set('');
        this.open.set(false);
        this.why.set('');
      },
      error: (failure: ApiFailure) => {
        if (failure.current) this.desk.keep(failure.current as Parameters<Desk['keep']>[0]);
        this.problem.set(
          failure.current ? 'Somebody else has changed this survey meanwhile. What you typed is still here; try again.' : failure.message,
        );
      },
    });
  }
}
