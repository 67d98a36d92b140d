import { ChangeDetectionStrategy, Component, DestroyRef, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { handStaleWords } from '@isometra/work';
import * as z from 'zod';
import { Drafts } from '../data/drafts';
import { AtHand } from '../shell/at-hand';
import { MachineStore } from '../machine/machine-store';
import { Cautions } from '../ui/cautions';
import { SurveyChanges } from './survey-changes';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { Tick } from '../ui/tick';
import { dateWords } from '../data/when';

const draftSchema = z.object({ ticks: z.array(z.number()), note: z.string() });
type Draft = z.infer<typeof draftSchema>;

const EMPTY: Draft = { ticks: [], note: '' };

/** A rung without readings: what is done by hand before the first measurement, or after the last. */
@Component({
  selector: 'iso-by-hand',
  imports: [RouterLink, Cautions, Button, Field, Notice, Tick],
  providers: [SurveyChanges],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (rung(); as rung) {
      <header>
        <h1>{{ rung.step.title }}</h1>
        <p>{{ rung.step.question }}</p>
        @if (rung.staleBy) {
          <p class="fault">{{ staleWords(rung.staleBy) }}</p>
        }
      </header>
      <iso-cautions [cautions]="rung.step.cautions" />
      <form (submit)="done($event)" novalidate>
        <ol>
          @for (point of rung.step.points; track point; let i = $index) {
            <li>
              <iso-tick class="point" [on]="draft().ticks.includes(i)" (changed)="tick(i, $event)">{{ point }}</iso-tick>
            </li>
          }
        </ol>
        <iso-field
          above
          wide
          [label]="rung.step.note.label"
          [most]="300"
          [example]="rung.step.note.example"
          [value]="draft().note"
          (typed)="write($event)"
        />
        <iso-notice [text]="problem() || changes.problem()" />
        <p class="buttons">
          <button pButton type="submit" [class.next]="rung.state !== 'in'">It is done</button>
          @if (rung.step.check; as check) {
            <a class="act" [routerLink]="['..', '..', 'bench', check]">Measure the pads on the bench</a>
          }
        </p>
      </form>
      @for (entry of log(); track entry.at) {
        <p>
          <b>{{ entry.when }}, {{ entry.by }}:</b> {{ entry.note ?? 'done' }}
        </p>
      }
    } @else {
      <h1>There is no such step among the checks of this machine</h1>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 16px;
      align-content: start;
      max-width: 900px;
      padding: 18px 28px 30px;
    }
    form {
      display: grid;
      gap: 14px;
    }
    ol {
      display: grid;
      gap: 8px;
      margin: 0;
      padding-left: 26px;
      font: 600 1rem/1.4 var(--narrow);
    }
    .point {
      font: 400 1rem/1.4 var(--words);
    }
    .buttons {
      display: flex;
      gap: 14px;
      align-items: center;
    }
    .fault {
      color: var(--red);
      font-weight: 600;
    }
  `,
})
export class ByHandStep {
  readonly stepId = input.required<string>();
  private readonly store = inject(MachineStore);
  private readonly drafts = inject(Drafts);
  protected readonly changes = inject(SurveyChanges);
  protected readonly draft = signal<Draft>(EMPTY);
  protected readonly problem = signal('');
  protected readonly staleWords = handStaleWords;

  protected readonly rung = computed(() => this.store.byHand().find(({ step }) => step.id === this.stepId()));
  protected readonly log = computed(() =>
    (this.store.survey()?.byHand ?? [])
      .filter((entry) => entry.step === this.stepId())
      .map((entry) => ({ ...entry, when: dateWords(entry.at) }))
      .reverse(),
  );
  private readonly draftName = computed(() => `by-hand:${this.store.survey()?.id}:${this.stepId()}`);

  constructor() {
    const hand = inject(AtHand);
    effect(() => hand.doing.set(this.rung()?.step.title ?? ''));
    // While this is the next thing the ladder's yellow steps back.
    effect(() => this.store.inHand.set(this.rung()?.state !== 'in'));
    inject(DestroyRef).onDestroy(() => this.store.inHand.set(false));
    effect(() => this.changes.told() && untracked(() => this.clear()));
    effect(() => {
      const name = this.draftName();
      untracked(() => this.draft.set(this.drafts.read(name, draftSchema) ?? EMPTY));
    });
  }

  /** What was typed is kept until the server has it. */
  private clear(): void {
    this.drafts.drop(this.draftName());
    this.draft.set(EMPTY);
  }

  protected tick(index: number, on: boolean): void {
    const others = this.draft().ticks.filter((tick) => tick !== index);
    this.keep({ ...this.draft(), ticks: on ? [...others, index] : others });
  }

  protected write(note: string): void {
    this.keep({ ...this.draft(), note });
  }

  private keep(draft: Draft): void {
    this.draft.set(draft);
    this.drafts.keep(this.draftName(), draft);
  }

  protected done(event: Event): void {
    event.preventDefault();
    const [rung, survey, { ticks, note }] = [this.rung(), this.store.survey(), this.draft()];
    if (!rung || !survey) return;
    const left = rung.step.points.length - ticks.length;
    if (left && !note.trim())
      return this.problem.set(
        `${left === 1 ? 'One point is' : `${left} points are`} not ticked. Tick what has been done, or write down why it was left. Example: ${rung.step.note.example}`,
      );
    this.problem.set('');
    this.changes.told.set('');
    this.changes.note(
      { kind: 'by-hand', content: { step: rung.step.id, note: note.trim() || null } },
      `${rung.step.title} is written down.`,
    );
  }
}
