import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal, viewChild } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { catchError, of, switchMap } from 'rxjs';
import { CHANGE_KINDS, effectOf, type AxisEffect, type PlannedChange } from '@isometra/core';
import { isFor, machineFamily } from '@isometra/contract';
import { measuredHeadWeight, pendingOf, type Planned } from '@isometra/work';
import { Rounds } from '../data/rounds';
import { Settings } from '../data/settings';
import { SurveyChanges } from '../survey/survey-changes';
import { MachineStore } from '../machine/machine-store';
import { formFaults, settled, type FormValue } from '../ui/form-model';
import { SchemaForm } from '../ui/schema-form';
import { bothUnits, isZero, slopeOver } from '../ui/say';
import { Button } from '../ui/controls';
import { Choices } from '../ui/choices';
import { dateWords } from '../data/when';

/** Changes of the axis that are still to come: while they are, aims and zones are moved so that the work ends right. */
@Component({
  selector: 'iso-planned-changes',
  imports: [SchemaForm, Button, Choices],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Planned changes</h2>
    <p>
      {{ mill() ? 'Changes that will tilt the column or the head later.' : 'Changes that will move the spindle later.' }} Until a change is
      made, the target of the checks that depend on it is shifted by the same amount.
    </p>
    @if (measured(); as found) {
      <p class="measured">
        <b>Measured here: </b>the head pulls the top of the column {{ found.words }} (with the head on {{ found.days[0] }}, off
        {{ found.days[1] }}).
        @if (found.sure) {
          <button pButton type="button" (click)="take(found)">Allow for it</button>
        } @else {
          That is within the doubt of the two rounds.
        }
      </p>
    }
    @for (entry of pending(); track entry.id) {
      <div class="entry">
        <b>{{ entry.title }}</b>
        <span>{{ entry.effect }}</span>
        <span class="soft">{{ entry.by }}, {{ entry.when }}</span>
        <span class="acts">
          <button pButton type="button" [attr.aria-label]="'Done: ' + entry.title" (click)="done(entry.id)">It is done</button>
          <button pButton type="button" class="plain" [attr.aria-label]="'Remove: ' + entry.title" (click)="takeOut(entry.id)">
            remove
          </button>
        </span>
      </div>
    }
    @if (sum(); as words) {
      <p class="sum"><b>Together:</b> {{ words }}</p>
    }
    @for (line of past(); track $index) {
      <p class="soft">{{ line }}</p>
    }
    <iso-choices label="What will change" [options]="kinds()" [value]="kind().id" (chosen)="choose($event)" />
    <form (submit)="add($event)" novalidate>
      <iso-schema-form [schema]="kind().fields" [value]="fields()" [faults]="faults()" [showAll]="tried()" (changed)="fields.set($event)" />
      @if (preview()) {
        <p class="preview">{{ preview() }}</p>
      }
      <p><button pButton type="submit">Add to planned changes</button></p>
    </form>
  `,
  styleUrl: './parts.css',
})
export class PlannedChanges {
  private readonly store = inject(MachineStore);
  private readonly changes = inject(SurveyChanges);
  private readonly settings = inject(Settings);
  private readonly rounds = inject(Rounds);
  private readonly possible = computed(() => CHANGE_KINDS.filter((change) => isFor(this.store.kind(), change)));
  protected readonly kinds = computed(() => this.possible().map(({ id, title }) => ({ value: id, label: title })));
  protected readonly kind = linkedSignal(() => this.possible()[0]);
  protected readonly mill = computed(() => machineFamily(this.store.kind()) === 'mill');
  /** Rounds of the column with their set-ups: with the head on, and with it off. */
  private readonly columns = toSignal(
    toObservable(this.store.machine).pipe(
      switchMap((machine) => (machine && this.mill() ? this.rounds.list(machine.id, 'column-lean') : of([]))),
      catchError(() => of([])),
    ),
    { initialValue: [] },
  );
  protected readonly measured = computed(() => {
    const weight = measuredHeadWeight(this.columns(), this.store.all());
    if (!weight) return null;
    const { leanX = 0, leanY = 0, expanded, on, off } = weight;
    const days = [dateWords(on), dateWords(off)];
    const sure = Math.max(Math.abs(leanX), Math.abs(leanY)) > expanded;
    return { leanX, leanY, words: this.lean(leanX, leanY) || 'no figures given', days, sure };
  });
  protected readonly fields = signal<FormValue>({});
  protected readonly tried = signal(false);
  private readonly full = computed(() => settled(this.kind().fields, this.fields(), this.settings.system()));
  protected readonly faults = computed(() => formFaults(this.kind().fields, this.full(), this.settings.system()));
  private readonly form = viewChild(SchemaForm);
  private readonly planned = computed(() => this.store.survey()?.planned ?? []);

  /** How a column goes: "0.012 mm in 300 mm toward you". */
  private lean(leanX: number, leanY: number): string {
    const says = (lean: number, plus: string, minus: string) => {
      const size = slopeOver(Math.abs(lean), 300, this.settings.shown(), 1);
      return isZero(size) ? '' : `${size} ${lean > 0 ? plus : minus}`;
    };
    return [says(leanY, 'toward you', 'back'), says(leanX, 'to the right', 'to the left')].filter(Boolean).join(', ');
  }

  private told({ slopeV, height, leanX, leanY, loadX, loadY, tilt, nod }: AxisEffect): string {
    const shown = this.settings.shown();
    const slope = bothUnits(slopeV, 'slope', shown, 1).large;
    const rise = bothUnits(height, 'deviation', shown, 1).large;
    const parts = [
      isZero(slope) ? '' : `the free end of the axis goes ${slope} ${slopeV > 0 ? 'up' : 'down'}`,
      isZero(rise) ? '' : `the centre goes ${rise} ${height > 0 ? 'up' : 'down'}`,
      this.lean(leanX + loadX, leanY + loadY) && `the top of the column goes ${this.lean(leanX + loadX, leanY + loadY)}`,
      this.lean(tilt, nod) && `the top of the head goes ${this.lean(tilt, nod)}`,
    ].filter(Boolean);
    return parts.length ? parts.join(', ') : 'nothing moves';
  }

  private title = ({ change }: Planned): string => {
    const title = CHANGE_KINDS.find((kind) => kind.id === change.kind)?.title ?? change.kind;
    const what = change.fields['what'];
    return typeof what === 'string' && what.trim() ? `${title}: ${what.trim()}` : title;
  };

  protected readonly pending = computed(() =>
    this.planned()
      .filter((entry) => entry.doneAt === null)
      .map((entry) => ({
        id: entry.id,
        title: this.title(entry),
        effect: this.told(effectOf(entry.change)),
        by: entry.by,
        when: dateWords(entry.at),
      })),
  );
  protected readonly past = computed(() =>
    this.planned().flatMap((entry) => (entry.doneAt ? [`${this.title(entry)}: done ${dateWords(entry.doneAt)}.`] : [])),
  );
  protected readonly sum = computed(() => (this.pending().length > 1 ? this.told(pendingOf({ planned: this.planned() })) : ''));
  protected readonly preview = computed(() => {
    if (this.faults().length) return '';
    const effect = effectOf(this.change());
    return `When it is done ${this.told(effect)}. Until then the target is shifted by the same amount the other way.`;
  });
  private readonly change = computed((): PlannedChange => ({ kind: this.kind().id, fields: { ...this.full() } }));

  protected choose(id: string): void {
    this.kind.set(this.possible().find((entry) => entry.id === id) ?? this.possible()[0]);
    this.fields.set({});
    this.tried.set(false);
  }

  /** What was measured goes into the form; it is put on the list by hand. */
  protected take({ leanX, leanY }: { readonly leanX: number; readonly leanY: number }): void {
    this.choose('head-weight');
    this.fields.set({ leanY: `${leanY.toFixed(1)} um/m`, leanX: `${leanX.toFixed(1)} um/m` });
  }

  protected add(event: Event): void {
    event.preventDefault();
    this.tried.set(true);
    if (this.faults().length) return;
    const note = { kind: 'planned', content: { change: this.change() } } as const;
    this.changes.note(note, 'Added. The targets of the checks that depend on the axis have moved.');
    this.fields.set({});
    this.form()?.forget();
    this.tried.set(false);
  }

  protected done(id: string): void {
    const note = { kind: 'planned-done', content: { planned: id } } as const;
    this.changes.note(note, 'Marked as done. The targets are back, and the checks that depend on the axis must be read again.');
  }

  protected takeOut(id: string): void {
    this.changes.note({ kind: 'withdrawn', content: {} }, 'Removed.', id);
  }
}
