import { ChangeDetectionStrategy, Component, DestroyRef, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { proofCut } from '@isometra/core';
import { cutZone, handStaleWords } from '@isometra/work';
import * as z from 'zod';
import { Drafts } from '../data/drafts';
import { Settings } from '../data/settings';
import { Glyph } from '../ui/glyph';
import { padsOf, proofWords, readPads, type Pad } from './proof-words';
import { withUnit } from '../ui/form-model';
import { AtHand } from '../shell/at-hand';
import { MachineStore } from '../machine/machine-store';
import { Cautions } from '../ui/cautions';
import { SurveyChanges } from './survey-changes';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { Tick } from '../ui/tick';
import { dateWords } from '../data/when';

const draftSchema = z.object({
  ticks: z.array(z.number()),
  note: z.string(),
  sizes: z.partialRecord(z.enum(['firstHead', 'firstTail', 'turnedHead', 'turnedTail']), z.string()).default({}),
});
type Draft = z.infer<typeof draftSchema>;

const EMPTY: Draft = { ticks: [], note: '', sizes: {} };

/** A rung without readings: what is done by hand before the first measurement, or after the last. */
@Component({
  selector: 'iso-by-hand',
  imports: [RouterLink, Cautions, Glyph, Button, Field, Notice, Tick],
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
        @if (rung.step.sizes) {
          <table class="pads">
            <thead>
              <tr>
                <td></td>
                <th scope="col">Head end of the machine</th>
                <th scope="col">Tail end of the machine</th>
              </tr>
            </thead>
            <tbody>
              @for (row of padRows; track row.label) {
                <tr>
                  <th scope="row">{{ row.label }}</th>
                  @for (pad of row.pads; track pad.key) {
                    <td>
                      <iso-field
                        label=""
                        [name]="row.label + ', ' + pad.end"
                        [example]="sizeExample()"
                        [value]="draft().sizes[pad.key] ?? ''"
                        (typed)="size(pad.key, $event)"
                        (left)="size(pad.key, inUnit(draft().sizes[pad.key]))"
                      />
                    </td>
                  }
                </tr>
              }
            </tbody>
          </table>
          @if (told(); as words) {
            <p class="told" role="status"><iso-glyph [state]="words.state" /> {{ words.text }}</p>
          }
        }
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
          <b>{{ entry.when }}, {{ entry.by }}:</b> {{ entry.said }}
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
    .pads {
      justify-self: start;
      border-collapse: collapse;
    }
    .pads th,
    .pads td {
      padding: 4px 14px 4px 0;
      text-align: left;
    }
    .told {
      font-weight: 600;
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
  private readonly settings = inject(Settings);
  protected readonly changes = inject(SurveyChanges);
  protected readonly draft = signal<Draft>(EMPTY);
  protected readonly problem = signal('');
  protected readonly staleWords = handStaleWords;

  protected readonly rung = computed(() => this.store.byHand().find(({ step }) => step.id === this.stepId()));
  protected readonly log = computed(() =>
    (this.store.survey()?.byHand ?? [])
      .filter((entry) => entry.step === this.stepId())
      .map((entry) => {
        const cut = entry.sizes && proofWords(proofCut(entry.sizes.first, entry.sizes.turned, this.zone()), this.settings.shown());
        return { ...entry, when: dateWords(entry.at), said: [cut, entry.note].filter(Boolean).join(' ') || 'done' };
      })
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

  protected readonly padRows = [
    { label: 'First cut', pads: padsOf('first') },
    { label: 'Bar turned end for end', pads: padsOf('turned') },
  ];
  protected readonly sizeExample = computed(() => (this.settings.system() === 'inch' ? '1.5712 in' : '39.988 mm'));
  private readonly zone = computed(() => cutZone(this.store.current()));

  protected size(pad: Pad, text: string): void {
    this.keep({ ...this.draft(), sizes: { ...this.draft().sizes, [pad]: text } });
  }
  /** A size with its unit: it keeps its meaning when the screen's unit is switched. */
  protected inUnit(text = ''): string {
    return withUnit(text, { dimension: 'length' }, this.settings.system());
  }

  /** The four sizes, or what is wrong with the first of them that is not one. */
  private readonly cut = computed(() => readPads(this.draft().sizes, (text) => this.inUnit(text), this.sizeExample()));
  /** What they say so far. */
  protected readonly told = computed(() => {
    const cut = this.cut();
    if (!cut.ok) return undefined;
    const found = proofCut(cut.sizes.first, cut.sizes.turned, this.zone());
    return { state: found.verdict, text: proofWords(found, this.settings.shown()) };
  });

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
    const cut = this.cut();
    if (rung.step.sizes && !cut.ok) return this.problem.set(cut.message);
    this.problem.set('');
    this.changes.told.set('');
    const sizes = rung.step.sizes && cut.ok && { sizes: cut.sizes };
    this.changes.note(
      { kind: 'by-hand', content: { step: rung.step.id, note: note.trim() || null, ...sizes } },
      `${rung.step.title} is written down.`,
    );
  }
}
