import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { EVENTS, type MachineEvent } from '@isometra/contract';
import { EVENT_WORDS } from '@isometra/work';
import { Surveys } from '../data/surveys';
import { MachineStore } from '../machine/machine-store';
import { Button } from '../ui/controls';
import { Choices } from '../ui/choices';
import { Escape } from '../ui/escape';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { counted } from '../ui/say';

const LABELS: Readonly<Record<MachineEvent, string>> = {
  crashed: 'It crashed',
  moved: 'It was moved',
  levelled: 'It was levelled',
  'bolts-slackened': 'Bolts were slackened',
  'part-off': 'A part was taken off',
};

/** Something happened to the machine: what was read before it is to be read again. */
@Component({
  selector: 'iso-what-happened',
  imports: [Button, Choices, Escape, Field, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form (submit)="keep($event)" (isoEscape)="closed.emit()" novalidate>
      <iso-choices label="What happened" [options]="options" [value]="event()" (chosen)="event.set($any($event))" />
      <iso-field
        above
        label="In your words"
        example="drill into the vice at rapid"
        [most]="300"
        [size]="22"
        [value]="note()"
        (typed)="note.set($event)"
      />
      @if (reopens(); as words) {
        <p>{{ words }}</p>
      }
      <p>
        <button pButton type="submit">Write it down</button>
        <button pButton type="button" class="plain" (click)="closed.emit()">Cancel</button>
      </p>
      <iso-notice [text]="problem()" />
    </form>
  `,
  styles: `
    form {
      display: grid;
      grid-template-columns: minmax(0, 1fr);
      gap: 10px;
      padding: 10px 0;
    }
  `,
})
export class WhatHappened {
  private readonly store = inject(MachineStore);
  private readonly surveys = inject(Surveys);
  readonly closed = output();
  /** It was written down: what the screen shows follows from it. */
  readonly written = output();
  protected readonly options = [...EVENTS].sort().map((value) => ({ value, label: LABELS[value] }));
  protected readonly event = signal<MachineEvent | null>(null);
  protected readonly note = signal('');
  protected readonly problem = signal('');
  private readonly read = computed(() => this.store.rungs().filter(({ round, state }) => round && state !== 'left' && state !== 'stale'));
  /** What it does to the ladder, before it is written down. */
  protected readonly reopens = computed(() => {
    const event = this.event();
    if (event === null) return '';
    if (event === 'levelled') return 'Checks that depend on the level will be read again.';
    const many = this.read().length;
    return many === 0
      ? 'Nothing has been read yet that it could upset.'
      : `${counted(many, 'check')} will be read again, because ${EVENT_WORDS[event]}.`;
  });

  protected keep(submit: Event): void {
    submit.preventDefault();
    const [event, survey] = [this.event(), this.store.survey()];
    if (event === null) return this.problem.set('What happened? Choose one of these.');
    if (!survey) return this.problem.set('No survey runs on this machine: begin one first.');
    this.surveys.note(survey, { kind: 'event', content: { what: event, note: this.note().trim() || null } });
    this.written.emit();
  }
}
