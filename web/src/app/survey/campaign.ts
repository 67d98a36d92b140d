import { CdkDrag, type CdkDragDrop, CdkDragHandle, CdkDropList } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, ElementRef, Injector, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { dequal } from 'dequal';
import { CHECKS, bearingsFirst, misplaced, misplacedText, withBearings } from '@isometra/core';
import { SCHOOLS, surveySchema, usualSheet, type School, type StateThen, type SurveyWrite } from '@isometra/contract';
import { defaultPlan, freshSurvey, moved, orderOf, surveyWriteOf, wayOfFinding } from '@isometra/work';
import { newId } from '../data/id';
import { nowText } from '../data/clock';
import type { ApiFailure } from '../data/api';
import { Limits, type ShownSheet } from '../data/limits';
import { Settings } from '../data/settings';
import { Surveys } from '../data/surveys';
import { AtHand } from '../shell/at-hand';
import { AsItStood } from '../notebook/as-it-stood';
import { Earlier } from '../notebook/earlier';
import { Archive } from '../shell/archive';
import { MachineStore } from '../machine/machine-store';
import { Glyph } from '../ui/glyph';
import { SurveyChanges } from './survey-changes';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Escape } from '../ui/escape';
import { leadHand } from '../ui/lead-hand';
import { Notice } from '../ui/notice';
import { Choices } from '../ui/choices';
import { Pick } from '../ui/pick';
import { dateWords } from '../data/when';

/** What of a survey is kept of every earlier state. */
const surveyState = surveySchema.pick({ title: true, school: true, order: true, skipped: true, limits: true });

/** A survey as a campaign: the order of its rungs, what is left out and why, what a move opens again, by which limits. */
@Component({
  selector: 'iso-campaign',
  imports: [
    Archive,
    AsItStood,
    Earlier,
    Escape,
    RouterLink,
    CdkDropList,
    CdkDrag,
    CdkDragHandle,
    Glyph,
    Button,
    Field,
    Notice,
    Choices,
    Pick,
  ],
  providers: [SurveyChanges],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './campaign.html',
  styleUrl: './campaign.css',
})
export class Campaign {
  protected readonly store = inject(MachineStore);
  private readonly surveys = inject(Surveys);
  private readonly limits = inject(Limits);
  private readonly settings = inject(Settings);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly injector = inject(Injector);

  protected readonly schools = SCHOOLS;
  private readonly changes = inject(SurveyChanges);
  protected readonly problem = this.changes.problem;
  protected readonly told = this.changes.told;
  /** The rung whose reason for being left out is being typed. */
  protected readonly leaving = signal<string | null>(null);
  protected readonly why = signal('');
  protected readonly newTitle = signal('');
  protected readonly sheets = toSignal(this.limits.all$, { initialValue: [] as readonly ShownSheet[] });
  protected readonly survey = this.store.survey;
  private readonly kind = this.store.kind;

  constructor() {
    inject(AtHand).doing.set('This survey');
    this.store.refresh();
    this.limits.load().subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
  }

  protected readonly order = computed(() => orderOf(this.kind(), this.survey()?.order ?? []));
  protected readonly rungs = computed(() => {
    const wrong = misplaced(this.order());
    return this.store.rungs().map((rung, index) => ({
      id: rung.check.id,
      title: rung.check.title,
      question: rung.check.question,
      state: rung.state,
      way: wayOfFinding({ quantities: rung.found }, rung.check),
      number: index + 1,
      left: this.survey()?.skipped.find((entry) => entry.check === rung.check.id),
      warning: misplacedText(rung.check.id, wrong.get(rung.check.id)),
    }));
  });
  protected readonly usual = computed(() => dequal(this.order(), orderOf(this.kind(), defaultPlan(this.kind()).order)));

  /** The pinned sheet, and a newer version of it if there is one. */
  protected readonly pinned = computed(() => {
    const survey = this.survey();
    const sheet = this.sheets().find((entry) => entry.id === survey?.limits.sheet);
    return {
      id: survey?.limits.sheet ?? usualSheet(this.kind()),
      words: sheet?.own ? `${survey?.judge.name}, version ${survey?.limits.version}` : (survey?.judge.name ?? ''),
      newer: sheet?.own && survey && sheet.version > survey.limits.version ? sheet.version : undefined,
    };
  });

  private readonly past = computed(() => this.store.surveys().filter((survey) => survey.id !== this.survey()?.id));
  protected readonly archived = computed(() => this.past().filter((survey) => survey.archived));
  protected archive(survey: { readonly id: string; readonly machineId: string }, away: boolean): void {
    this.changes.archive(survey, away);
  }
  protected readonly others = computed(() =>
    this.past()
      .filter(({ archived }) => !archived)
      .map((survey) => {
        const { id, title, machineId } = survey;
        const rounds = this.store.all().filter((round) => round.surveyId === survey.id).length;
        const words = `${survey.title}: ${dateWords(survey.startedAt)}${survey.endedAt ? ` to ${dateWords(survey.endedAt)}` : ''}, ${rounds} ${rounds === 1 ? 'round' : 'rounds'}`;
        return { id, title, machineId, words };
      }),
  );

  /** An earlier state of this survey that is looked at. */
  protected readonly then = signal<StateThen | null>(null);
  private readonly thenPart = computed(() => surveyState.safeParse(this.then()?.state).data);
  protected readonly thenOrder = computed(() => (this.thenPart()?.order ?? []).map((id) => CHECKS.get(id)?.title ?? id));
  protected lookAt(then: StateThen): void {
    this.then.set(then);
  }
  protected putBack(): void {
    const part = this.thenPart();
    if (part) this.save(part, 'The survey is again as it stood then.');
    this.then.set(null);
  }

  private save(part: Partial<SurveyWrite>, words: string): void {
    this.changes.save(part, words);
  }

  protected rename(title: string): void {
    if (title.trim() && title.trim() !== this.survey()?.title) this.save({ title: title.trim() }, 'Title kept.');
  }

  protected choose(school: School): void {
    this.save({ school }, SCHOOLS.find((entry) => entry.value === school)?.about ?? '');
  }

  protected readonly firsts = [
    { value: true, label: 'the bearings' },
    { value: false, label: 'the headstock' },
  ];
  protected readonly judges = computed(() =>
    this.sheets()
      .filter(({ id, archived }) => !archived || id === this.pinned().id)
      .map(({ id, content }) => ({ value: id, label: id === this.pinned().id ? this.pinned().words : content.name })),
  );
  protected readonly bearingsFirst = computed(() => bearingsFirst(this.order()));

  protected bearings(first: boolean): void {
    const words = first
      ? 'The bearings come before the headstock.'
      : 'The headstock comes first: plan the drop of the bearings, and its target moves.';
    this.save({ order: withBearings(this.order(), first) }, words);
  }

  protected judgeBy(id: string): void {
    const sheet = this.sheets().find((entry) => entry.id === id);
    if (sheet)
      this.save(
        { limits: { sheet: sheet.id, version: sheet.version } as SurveyWrite['limits'] },
        `Judged by “${sheet.content.name}” from now on, old rounds too.`,
      );
  }

  /** A rung goes up (−) or down (+); the hand stays on it. */
  protected move(id: string, by: number, focus?: 'up' | 'down' | 'row'): void {
    const order = moved(this.order(), id, by);
    if (dequal(order, this.order())) return;
    this.save({ order }, `${CHECKS.get(id)?.title} is check ${order.indexOf(id) + 1} now.`);
    if (!focus) return;
    leadHand(this.injector, () =>
      this.host.nativeElement.querySelector<HTMLElement>(`[data-rung="${id}"] ${focus === 'row' ? '.grip' : `.${focus}`}`),
    );
  }

  protected dropped(event: CdkDragDrop<unknown>): void {
    this.move(this.order()[event.previousIndex], event.currentIndex - event.previousIndex);
  }

  protected keyOn(event: KeyboardEvent, id: string): void {
    const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    this.move(id, by, 'row');
  }

  protected backToUsual(): void {
    this.save({ order: defaultPlan(this.kind()).order }, 'The checks are in their usual order again.');
  }

  /** Ask why a rung is left out: the hand is put where the answer goes. */
  protected askWhy(id: string): void {
    this.leaving.set(id);
    leadHand(this.injector, () => this.host.nativeElement.querySelector<HTMLElement>(`[data-rung="${id}"] form input`));
  }

  protected leaveOut(event: Event, id: string): void {
    event.preventDefault();
    const why = this.why().trim();
    if (!why) return this.problem.set('A reason is required. Example: rebuilt last month, not touched since');
    const skipped = [...(this.survey()?.skipped ?? []), { check: id, why, by: this.settings.by(), at: nowText() }];
    this.leaving.set(null);
    this.why.set('');
    this.save({ skipped }, `${CHECKS.get(id)?.title} is left out.`);
  }

  protected takeUp(id: string): void {
    this.save(
      { skipped: (this.survey()?.skipped ?? []).filter((entry) => entry.check !== id) },
      `${CHECKS.get(id)?.title} is taken up again.`,
    );
  }

  /** An ended survey goes on; the one that runs ends, and can be gone on with in the same way. */
  protected goOn(id: string): void {
    const survey = this.past().find((entry) => entry.id === id);
    if (survey) this.changes.change(survey, { endedAt: null }, `“${survey.title}” goes on; “${this.survey()?.title}” has ended.`);
  }

  protected begin(event: Event): void {
    event.preventDefault();
    const machine = this.store.machine();
    const title = this.newTitle().trim();
    if (!machine) return;
    if (!title) return this.problem.set('Title of the new survey is missing. Example: After scraping the headstock');
    const fresh = freshSurvey({ id: machine.id, kind: this.kind() }, newId(), title, nowText());
    const { school, order, limits } = this.survey() ?? fresh;
    this.surveys.begin({ ...surveyWriteOf(fresh), school, order, limits }).subscribe({
      next: () => {
        this.newTitle.set('');
        this.problem.set('');
        this.told.set(`“${title}” has begun: every check has to be read again.`);
      },
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }
}
