import { ChangeDetectionStrategy, Component, type OnInit, computed, inject, output, signal } from '@angular/core';
import { instrumentSchemaFor, KINDS_FOR, type CheckDefinition } from '@isometra/core';
import { roundSchema, type RoundWrite, type StateThen, type StoredRound } from '@isometra/contract';
import * as z from 'zod';
import type { ApiFailure } from '../data/api';
import { Drafts } from '../data/drafts';
import { Settings } from '../data/settings';
import { senseOf } from '@isometra/work';
import { AsItStood } from '../notebook/as-it-stood';
import { Earlier } from '../notebook/earlier';
import { FormPart } from '../ui/form-part';
import { asInFile, formFaults, formSchema, settled, withField } from '../ui/form-model';
import { asTyped } from './begin-draft';
import { BenchStore } from './bench-store';
import { CheckParts, anotherLook, partFaults, partsSchema, settledParts } from './check-parts';
import { Nudge, senseSchema } from './nudge';
import { Button } from '../ui/controls';
import { Escape } from '../ui/escape';
import { Notice } from '../ui/notice';

const kindsWithNeedle: readonly string[] = KINDS_FOR.indicator;

/** What a round was set up with, as typed. */
const setUpSchema = z.object({ ...partsSchema.shape, instrument: formSchema, sense: senseSchema });
type SetUpDraft = z.infer<typeof setUpSchema>;

/** An earlier set-up, as it was kept. */
const setUpState = roundSchema.pick({ setup: true, plan: true, conditions: true, instrument: true });

/**
 * The set-up of a round that has begun, to be put right: a bar's diameter mistyped, a lock that was off,
 * the nudge test forgotten. The readings stay as they are; the call is worked out anew from them.
 */
@Component({
  selector: 'iso-as-set-up',
  imports: [AsItStood, Earlier, Escape, CheckParts, FormPart, Nudge, Button, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form (submit)="save($event)" novalidate (isoEscape)="done.emit()">
      <p class="soft">The readings stay as they are. The result is calculated again, and the change is noted in the log.</p>
      <iso-check-parts [check]="check()" [draft]="draft()" [faults]="faults()" [tried]="tried()" (changed)="take($event)" />
      @if (round().instrument) {
        <iso-form-part
          [heading]="round().instrumentName ?? 'Instrument'"
          [schema]="instrumentSchema()"
          [value]="draft().instrument"
          [faults]="faults().instrument"
          [showAll]="tried()"
          (changed)="take({ instrument: $event })"
        >
          @if (needle()) {
            <iso-nudge after [sense]="draft().sense" (senseChange)="take({ sense: $event })" />
          }
        </iso-form-part>
      }
      <iso-notice [text]="problem()" />
      <p class="buttons">
        <button pButton type="submit">{{ then() ? 'Put this back' : 'Edit set-up' }}</button>
        <button pButton type="button" (click)="leave()">Discard changes</button>
      </p>
      @if (then(); as state) {
        <iso-as-it-stood [then]="state" (back)="showNow()" />
      }
      <iso-earlier
        what="rounds"
        [of]="round().id"
        [version]="round().version"
        [shown]="then()?.version ?? null"
        (looked)="lookAt($event)"
      />
    </form>
  `,
  styles: `
    form {
      display: grid;
      gap: 16px;
    }
    .buttons {
      display: flex;
      gap: 10px;
    }
    .problem {
      color: var(--red);
      font-weight: 600;
    }
  `,
})
export class AsSetUp implements OnInit {
  /** Put right, or left as it was. */
  readonly done = output<void>();

  private readonly store = inject(BenchStore);
  private readonly drafts = inject(Drafts);
  private readonly settings = inject(Settings);
  protected readonly round = computed(() => this.store.round() as StoredRound);
  protected readonly check = computed(() => this.store.check() as CheckDefinition);
  protected readonly tried = signal(false);
  protected readonly problem = signal('');
  protected readonly draft = signal<SetUpDraft>({ setup: {}, plan: {}, conditions: {}, instrument: {}, sense: null });

  protected readonly instrumentSchema = computed(() => instrumentSchemaFor(this.draft().instrument['kind']));
  protected readonly needle = computed(() => kindsWithNeedle.includes(String(this.draft().instrument['kind'])));

  /** The draft with its units written out. */
  private readonly full = computed((): SetUpDraft => {
    const [draft, check, system] = [this.draft(), this.check(), this.settings.system()];
    return {
      ...draft,
      ...settledParts(check, draft, system),
      instrument: settled(this.instrumentSchema(), draft.instrument, system),
    };
  });
  protected readonly faults = computed(() => ({
    ...partFaults(this.check(), this.full(), this.settings.system()),
    instrument: this.round().instrument ? formFaults(this.instrumentSchema(), this.full().instrument, this.settings.system()) : [],
  }));
  private readonly draftName = computed(() => `as-set-up:${this.round().id}`);

  ngOnInit(): void {
    this.draft.set(this.drafts.read(this.draftName(), setUpSchema) ?? this.draftOf(this.round()));
  }

  private draftOf({ setup, plan, conditions, instrument }: Pick<RoundWrite, 'setup' | 'plan' | 'conditions' | 'instrument'>): SetUpDraft {
    const check = this.check();
    return {
      setup: asInFile(check.setup, setup),
      plan: asInFile(check.plan, plan),
      conditions: asTyped(conditions, check.conditions),
      instrument: asInFile(instrumentSchemaFor(instrument?.['kind']), withField(instrument ?? {}, 'sense', undefined)),
      sense: senseOf(instrument),
    };
  }

  /** An earlier set-up that is looked at: the form shows it. */
  protected readonly then = signal<StateThen | null>(null);
  protected lookAt(then: StateThen): void {
    const state = setUpState.safeParse(then.state).data;
    if (!state) return this.problem.set('That state cannot be shown.');
    this.then.set(then);
    this.draft.set(this.draftOf(state));
  }
  protected showNow(): void {
    this.then.set(null);
    this.draft.set(this.draftOf(this.round()));
  }

  protected take(part: Partial<SetUpDraft>): void {
    this.draft.update((draft) => ({ ...draft, ...part }));
    this.drafts.keep(this.draftName(), this.draft());
  }

  protected save(event: Event): void {
    event.preventDefault();
    this.tried.set(true);
    this.problem.set(anotherLook(this.faults()));
    if (this.problem()) return;
    const { setup, plan, conditions, instrument, sense } = this.full();
    this.store
      .change(this.round(), {
        setup: { ...setup },
        plan: { ...plan },
        conditions: this.check().conditions.parse(conditions) as RoundWrite['conditions'],
        instrument: this.round().instrument && { ...instrument, ...(this.needle() && sense && { sense }) },
      })
      .subscribe({
        next: () => this.leave(),
        error: (failure: ApiFailure) =>
          this.problem.set(
            failure.current ? 'Somebody else has changed this round meanwhile. What you typed is still here; try again.' : failure.message,
          ),
      });
  }

  protected leave(): void {
    this.drafts.drop(this.draftName());
    this.done.emit();
  }
}
