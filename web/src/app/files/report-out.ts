import {
  ChangeDetectionStrategy,
  Component,
  DOCUMENT,
  type OnDestroy,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { type Subscription, of, switchMap } from 'rxjs';
import type { Machine } from '@isometra/contract';
import { CHECKS } from '@isometra/core';
import type { ApiFailure } from '../data/api';
import { Settings } from '../data/settings';
import { Surveys } from '../data/surveys';
import { Reports, type ReportMaking } from '../data/reports';
import { Choices } from '../ui/choices';
import { Button } from '../ui/controls';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';
import { Progress } from '../ui/progress';
import { Tick } from '../ui/tick';

/** The acceptance report of a survey, and an archive file of it, of a machine or of the shop. */
@Component({
  selector: 'iso-report-out',
  imports: [Button, Choices, Notice, Pick, Progress, Tick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Acceptance report</h2>
    @if (machines().length) {
      <div class="asks">
        <iso-pick label="Machine" [options]="options()" [value]="machineId()" (chosen)="picked.set($event)" />
        <iso-pick
          label="Survey"
          placeholder="no survey yet"
          [options]="surveyOptions()"
          [value]="surveyId()"
          (chosen)="survey.set($event)"
        />
      </div>
      <div class="asks">
        <iso-choices label="Unit of the report" [options]="units" [value]="unit()" (chosen)="chosenUnit.set($any($event))" />
        <iso-choices label="How much of it" [options]="details" [value]="detail()" (chosen)="detail.set($any($event))" />
      </div>
      @if (checks().length) {
        <iso-choices label="Which checks" [options]="extents" [value]="some() !== null" (chosen)="choose($any($event))" />
        @if (some(); as chosen) {
          <div class="checks" role="group" aria-label="Checks in the report">
            @for (check of checks(); track check.id) {
              <iso-tick [on]="chosen.has(check.id)" (changed)="tick(check.id, $event)">{{ check.title }}</iso-tick>
            }
          </div>
        }
      }
      @if (surveyId() && some()?.size === 0) {
        <p>Tick the checks that the report should have.</p>
      } @else if (surveyId()) {
        <p>
          <a class="act next" target="_blank" rel="noopener" [href]="address()" (click)="make($event)">Open the report</a>
          <a class="act" download [href]="archive()">Archive file of this survey</a>
        </p>
        @if (making(); as now) {
          <p class="making">
            <span>{{ now.doing }}</span>
            <iso-progress [label]="now.doing" [percent]="now.percent" />
            <button pButton type="button" (click)="stop()">Stop</button>
          </p>
        }
        @if (made(); as ready) {
          <p class="status" role="status">
            The report is made. <a target="_blank" rel="noopener" [href]="ready">Open it here</a> where no new page has opened; it is kept
            for ten minutes.
          </p>
        }
        <p class="soft">
          The report carries a fingerprint of its data. “isometra verify report.pdf archive.zip” confirms that it was made from just that
          archive.
        </p>
      }
    } @else {
      <p>Reports are made of surveys: add a machine first.</p>
    }
    <iso-notice [text]="problem()" />
  `,
  styles: `
    :host {
      display: grid;
      gap: 12px;
      align-content: start;
    }
    h2 {
      font-size: 1.125rem;
    }
    .checks {
      columns: 3 200px;
    }
    .checks iso-tick {
      min-height: 32px;
      break-inside: avoid;
    }
    .asks,
    p {
      display: flex;
      flex-wrap: wrap;
      gap: 10px 24px;
    }
    .making {
      align-items: center;
    }
    p.status {
      display: block;
    }
    .making iso-progress {
      width: 200px;
    }
  `,
})
export class ReportOut implements OnDestroy {
  readonly machines = input.required<readonly Machine[]>();
  /** The machine that is asked for in the address. */
  readonly asked = input('');
  private readonly surveys = inject(Surveys);
  private readonly settings = inject(Settings);
  protected readonly units = [
    { value: 'mm', label: 'mm' },
    { value: 'inch', label: 'inch' },
    { value: 'both', label: 'both' },
  ];
  protected readonly details = [
    { value: 'full', label: 'Everything, for the file' },
    { value: 'short', label: 'Results only, for the customer' },
  ];
  protected readonly detail = signal<'full' | 'short'>('full');
  protected readonly chosenUnit = signal<'mm' | 'inch' | 'both' | null>(null);
  protected readonly unit = computed(() => this.chosenUnit() ?? this.settings.system());
  protected readonly picked = signal<string | null>(null);
  protected readonly survey = signal<string | null>(null);
  protected readonly problem = signal('');
  protected readonly options = computed(() =>
    this.machines().map(({ id, card }) => ({ value: id, label: [card.number, card.nickname].filter(Boolean).join(', ') })),
  );
  protected readonly machineId = computed(
    () =>
      this.picked() ??
      this.machines().find(({ id, card }) => [id, card.number].includes(this.asked()))?.id ??
      this.machines()[0]?.id ??
      null,
  );
  private readonly all = toSignal(toObservable(this.machineId).pipe(switchMap((id) => (id ? this.surveys.of(id) : of([])))), {
    initialValue: [],
  });
  protected readonly surveyOptions = computed(() =>
    this.all()
      .filter(({ archived }) => !archived)
      .map(({ id, title }) => ({ value: id, label: title }))
      .reverse(),
  );
  /** The one that was picked, as long as it is one of this machine; else the newest. */
  protected readonly surveyId = computed(() => {
    const known = this.surveyOptions();
    return known.find(({ value }) => value === this.survey())?.value ?? known[0]?.value ?? null;
  });
  protected readonly extents = [
    { value: false, label: 'All checks' },
    { value: true, label: 'Some of them' },
  ];
  /** The checks of the survey in its order. */
  protected readonly checks = computed(() => {
    const order = this.all().find(({ id }) => id === this.surveyId())?.order ?? [];
    return order.map((id) => ({ id, title: CHECKS.get(id)?.title ?? id }));
  });
  /** Those that were picked, as long as the survey is the same; null: all of them. */
  protected readonly some = linkedSignal<string | null, ReadonlySet<string> | null>({ source: this.surveyId, computation: () => null });
  private readonly query = computed(() => {
    const some = this.some();
    const checks = some ? `&checks=${[...some].map(encodeURIComponent).join(',')}` : '';
    return `units=${this.unit()}&detail=${this.detail()}${checks}`;
  });
  protected readonly address = computed(() => `/api/surveys/${this.surveyId()}/report.pdf?${this.query()}`);
  protected readonly archive = computed(() => `/api/archive.zip?survey=${this.surveyId()}`);

  private readonly reports = inject(Reports);
  private readonly window = inject(DOCUMENT).defaultView as Window;
  /** How far the report is; null while none is made. */
  protected readonly making = signal<Extract<ReportMaking, { doing: string }> | null>(null);
  /** Where the report that was made last is fetched, as long as the same one is asked for. */
  protected readonly made = linkedSignal<string, string>({ source: this.address, computation: () => '' });
  private running: Subscription | undefined;

  /** A plain click shows how far it is, and opens it once it is made; one with a key beside it is the browser's. */
  protected make(event: MouseEvent): void {
    if (event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    this.stop();
    this.problem.set('');
    this.made.set('');
    this.making.set({ doing: 'Working out the rounds', percent: 0 });
    const [survey, asked] = [this.surveyId() ?? '', this.address()];
    this.running = this.reports.make(survey, this.query()).subscribe({
      next: (step) => ('address' in step ? this.done(step.address, asked) : this.making.set(step)),
      error: (failure: ApiFailure) => {
        this.making.set(null);
        this.problem.set(failure.message);
      },
    });
  }

  protected stop(): void {
    this.running?.unsubscribe();
    this.making.set(null);
  }

  /** @param asked the report that was asked for: what was chosen meanwhile is another one. */
  private done(address: string, asked: string): void {
    this.making.set(null);
    if (asked !== this.address()) return;
    this.made.set(address);
    this.window.open(address, '_blank', 'noopener');
  }

  protected choose(some: boolean): void {
    this.some.set(some ? new Set() : null);
  }

  protected tick(id: string, on: boolean): void {
    this.some.update((some) => new Set(on ? [...(some ?? []), id] : [...(some ?? [])].filter((one) => one !== id)));
  }

  ngOnDestroy(): void {
    this.stop();
  }

  constructor() {
    effect(() => {
      const id = this.machineId();
      if (id !== null) this.surveys.load(id).subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
    });
  }
}
