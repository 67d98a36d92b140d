import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink, RouterLinkActive } from '@angular/router';
import { readLimitSheet, type Fault, type LimitLine, type LimitSheet } from '@isometra/core';
import { limitsToCsv } from '@isometra/work/limit-csv';
import { storedLimitSheetSchema } from '@isometra/contract';
import * as z from 'zod';
import { newId } from '../data/id';
import type { ApiFailure } from '../data/api';
import { Drafts } from '../data/drafts';
import { Limits, type ShownSheet } from '../data/limits';
import { Settings } from '../data/settings';
import { giveFile, giveJson } from '../ui/give-file';
import { limitsFromFile } from './files';
import { JobLimits } from './job-limits';
import { draftOf, lineDraftSchema, rawSheet, withLines } from './limit-draft';
import { LimitTable, type LineEdit } from './limit-table';
import { Rejudge } from './rejudge';
import { Versions } from './versions';
import { Archive } from '../shell/archive';
import { PrintHead } from '../shell/print-head';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Escape } from '../ui/escape';
import { Notice } from '../ui/notice';
import { Choices, type Choice } from '../ui/choices';
import { File } from '../ui/file';

/** A sheet as it is being changed, and the version it was begun on. */
const sheetDraftSchema = z.object({ name: z.string(), lines: z.array(lineDraftSchema).readonly(), version: z.number() });
type SheetDraft = z.infer<typeof sheetDraftSchema>;

type Panel = 'table' | 'job' | 'again' | 'versions';

const PANELS: readonly Choice<Panel>[] = [
  { value: 'table', label: 'the zones' },
  { value: 'job', label: 'limits from the job' },
  { value: 'again', label: 'judge old rounds by it' },
  { value: 'versions', label: 'its versions' },
];

/** By what calls are made: sheets to start from, and the shop's own with every version. */
@Component({
  selector: 'iso-limit-list',
  imports: [
    Escape,
    Archive,
    PrintHead,
    RouterLink,
    RouterLinkActive,
    LimitTable,
    JobLimits,
    Rejudge,
    Versions,
    Button,
    Field,
    Notice,
    Choices,
    File,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './limit-list.html',
  styleUrl: './limit-list.css',
})
export class LimitList {
  readonly sheetId = input<string>('general');
  private readonly store = inject(Limits);
  private readonly drafts = inject(Drafts);
  private readonly settings = inject(Settings);
  private readonly router = inject(Router);

  protected readonly sheets = toSignal(this.store.all$, { initialValue: [] as readonly ShownSheet[] });
  /** The sheets that are offered. */
  protected readonly inUse = computed(() => this.sheets().filter(({ archived }) => !archived));
  protected readonly archived = computed(() => this.sheets().filter(({ archived }) => archived));
  protected readonly sheet = computed(() => this.sheets().find((entry) => entry.id === this.sheetId()));
  protected readonly draft = signal<SheetDraft | null>(null);
  protected readonly tried = signal(false);
  protected readonly problem = signal('');
  protected readonly told = signal('');
  protected readonly badFile = signal<{ readonly name: string; readonly faults: readonly Fault[] } | null>(null);
  protected readonly panels = computed(() => PANELS.filter((panel) => panel.value !== 'versions' || this.sheet()?.own));
  protected readonly panel = signal<Panel>('table');

  private readonly read = computed(() => {
    const draft = this.draft();
    return draft ? readLimitSheet(rawSheet(draft.name, draft.lines, this.sheet()?.content)) : { faults: [] as Fault[] };
  });
  protected readonly faults = computed(() => this.read().faults);
  protected readonly nameFault = computed(() => this.faults().find((fault) => fault.path === 'name'));
  protected readonly lines = computed(() => {
    const [draft, sheet] = [this.draft(), this.sheet()];
    return draft?.lines ?? (sheet ? draftOf(sheet.content, this.settings.system()) : []);
  });

  constructor() {
    this.store.load().subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
    effect(() => {
      const id = this.sheetId();
      untracked(() => {
        this.draft.set(this.drafts.read(`limits:${id}`, sheetDraftSchema) ?? null);
        this.tried.set(false);
        if (this.panel() === 'versions') this.panel.set('table');
        this.problem.set('');
      });
    });
  }

  protected archive(id: string, away: boolean): void {
    this.store.archive(id, away).subscribe({
      next: () => this.problem.set(''),
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }

  /** A copy of the sheet on show, the shop's own. */
  protected copy(): void {
    const sheet = this.sheet();
    if (sheet) this.add({ ...sheet.content, name: `${sheet.content.name}, copy`.slice(0, 60) });
  }

  private add(content: LimitSheet): void {
    const id = newId();
    this.store.add(id, content).subscribe({
      next: () => {
        this.problem.set('');
        this.panel.set('table');
        this.told.set(`“${content.name}” is in the list, ${content.lines.length} lines.`);
        void this.router.navigate(['/limits', id]);
      },
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }

  protected type(part: Partial<SheetDraft>): void {
    const sheet = this.sheet();
    if (!sheet?.own) return;
    this.draft.update((draft) => ({
      name: draft?.name ?? sheet.content.name,
      lines: draft?.lines ?? this.lines(),
      version: draft?.version ?? sheet.version,
      ...part,
    }));
    this.drafts.keep(`limits:${sheet.id}`, this.draft());
    this.told.set('');
  }

  protected edit({ index, field, text }: LineEdit): void {
    this.type({ lines: this.lines().map((line, i) => (i === index ? { ...line, [field]: text } : line)) });
  }

  protected forget(): void {
    this.drafts.drop(`limits:${this.sheetId()}`);
    this.draft.set(null);
    this.problem.set('');
  }

  protected save(): void {
    this.tried.set(true);
    const draft = this.draft();
    const content = this.read().sheet;
    if (!draft || !content) {
      const count = this.faults().length;
      this.problem.set(count === 1 ? 'One field needs another look.' : `${count} fields need another look.`);
      return;
    }
    this.change(content, draft.version);
  }

  private change(content: LimitSheet, version: number): void {
    this.store.change(this.sheetId(), content, version).subscribe({
      next: (saved) => {
        this.forget();
        this.told.set(`Saved as version ${saved.version}. Surveys keep their limits until you switch them (Order and limits).`);
      },
      error: (failure: ApiFailure) => {
        const newer = storedLimitSheetSchema.safeParse(failure.current).data;
        if (newer) this.type({ version: newer.version });
        this.problem.set(
          newer
            ? `Somebody else has kept version ${newer.version} meanwhile. What you typed is still here. Save again to overwrite their version.`
            : failure.message,
        );
      },
    });
  }

  /** Limits that followed from a job go into the sheet on show, or into a copy of a starting sheet. */
  protected take(lines: readonly LimitLine[]): void {
    const sheet = this.sheet();
    if (!sheet) return;
    const content = withLines(this.read().sheet ?? sheet.content, lines);
    if (sheet.own) this.change(content, this.draft()?.version ?? sheet.version);
    else this.add({ ...content, name: `${sheet.content.name}, for the job` });
    this.panel.set('table');
  }

  /** An older version becomes the newest one again. */
  protected bringBack(content: LimitSheet): void {
    const sheet = this.sheet();
    if (sheet?.own) this.change(content, sheet.version);
  }

  protected async importFile(file: globalThis.File): Promise<void> {
    const { sheet, faults } = limitsFromFile(file.name, await file.text());
    this.badFile.set(sheet ? null : { name: file.name, faults });
    if (sheet) this.add(sheet);
  }

  protected give(kind: 'json' | 'csv'): void {
    const content = this.sheet()?.content;
    if (!content) return;
    const name = `${content.name.replace(/[^\p{L}\p{N}]+/gu, '-')}.${kind}`;
    if (kind === 'json') giveJson(name, content);
    else giveFile(name, 'text/csv', limitsToCsv(content));
  }
}
