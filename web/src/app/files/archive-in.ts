import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { Subscription } from 'rxjs';
import type { ArchiveResult } from '@isometra/contract/archive';
import type { ApiFailure } from '../data/api';
import { ArchiveFiles, type ArchiveStep, type Choice } from '../data/archive-files';
import { Machines } from '../data/machines';
import { dateWords } from '../data/when';
import { Choices } from '../ui/choices';
import { Button } from '../ui/controls';
import { File as FileButton } from '../ui/file';
import { Notice } from '../ui/notice';
import { Progress } from '../ui/progress';
import { resultLines, scopeWords } from './result-words';

/** An archive on its way into the shop: what it would do is shown first, what both changed is chosen, and only then it is taken in. */
@Component({
  selector: 'iso-archive-in',
  imports: [Button, Choices, FileButton, Notice, Progress],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Import an archive file</h2>
    <p>A machine from another shop, or a copy of this one. What it would do is shown before anything is written.</p>
    @if (step(); as now) {
      <p class="doing">{{ now.doing }}</p>
      <iso-progress [label]="now.doing" [percent]="now.percent" />
      <button pButton type="button" (click)="stop()">Stop</button>
    } @else {
      <iso-file label="Choose an archive file" accept=".zip,application/zip" (chosen)="look($event)" />
    }
    <iso-notice [text]="problem()" />
    <iso-notice kind="told" [text]="told()" />
    @if (result(); as found) {
      <section aria-label="What is in it">
        <h3>{{ scope() }}</h3>
        <p class="soft">Written {{ day(found.manifest.written) }} by Isometra {{ found.manifest.program.version }}</p>
        <dl>
          @for (line of lines(); track line.label) {
            <dt>{{ line.label }}</dt>
            <dd>{{ line.text }}</dd>
          }
        </dl>
        @if (!found.taken) {
          @for (difference of found.differences; track difference.path) {
            <div class="difference">
              <h4>{{ difference.called }} was changed here and there</h4>
              <table>
                <thead>
                  <tr>
                    <th scope="col">Field</th>
                    <th scope="col">Here</th>
                    <th scope="col">In the archive</th>
                  </tr>
                </thead>
                <tbody>
                  @for (field of difference.fields; track $index) {
                    <tr>
                      <th scope="row">{{ field.field }}</th>
                      <td>{{ field.ours ?? 'not given' }}</td>
                      <td>{{ field.theirs ?? 'not given' }}</td>
                    </tr>
                  }
                </tbody>
              </table>
              <iso-choices
                [label]="difference.called"
                [options]="sides"
                [value]="choices()[difference.path]"
                (chosen)="choose(difference.path, $any($event))"
              />
            </div>
          }
          @if (changes()) {
            <p class="acts">
              <button pButton type="button" class="next" [disabled]="open() > 0" (click)="take()">Import it</button>
              <button pButton type="button" (click)="leave()">Leave it</button>
              @if (open(); as left) {
                <span class="soft">{{ left === 1 ? 'One is' : left + ' are' }} still to be chosen</span>
              }
            </p>
          } @else {
            <p>Everything in it is here already.</p>
          }
        }
      </section>
    }
  `,
  styleUrl: './archive-in.css',
})
export class ArchiveIn {
  private readonly files = inject(ArchiveFiles);
  private readonly machines = inject(Machines);
  protected readonly day = dateWords;
  protected readonly sides = [
    { value: 'ours', label: 'Keep what is here' },
    { value: 'theirs', label: 'Take the archive’s' },
  ];
  protected readonly step = signal<Extract<ArchiveStep, { doing: string }> | null>(null);
  protected readonly result = signal<ArchiveResult | null>(null);
  protected readonly choices = signal<Readonly<Record<string, Choice>>>({});
  protected readonly problem = signal('');
  protected readonly told = signal('');
  private file: File | null = null;
  private running: Subscription | undefined;
  protected readonly scope = computed(() => (this.result() ? scopeWords(this.result()!) : ''));
  protected readonly lines = computed(() => (this.result() ? resultLines(this.result()!) : []));
  /** Differences that nobody has settled yet. */
  protected readonly open = computed(() => this.result()?.differences.filter(({ path }) => !this.choices()[path]).length ?? 0);
  /** Whether taking it in would change anything. */
  protected readonly changes = computed(() => {
    const { added, newer, grown, differences } = this.result() ?? { added: {}, newer: {}, grown: {}, differences: [] };
    return [added, newer, grown].some((counts) => Object.keys(counts).length) || differences.length > 0;
  });

  protected look(file: File): void {
    this.leave();
    this.file = file;
    this.run(this.files.look(file));
  }

  protected choose(path: string, side: Choice): void {
    this.choices.update((choices) => ({ ...choices, [path]: side }));
  }

  protected take(): void {
    if (this.file) this.run(this.files.take(this.file, this.choices()));
  }

  protected leave(): void {
    this.file = null;
    this.result.set(null);
    this.choices.set({});
    this.problem.set('');
    this.told.set('');
  }

  protected stop(): void {
    this.running?.unsubscribe();
    this.step.set(null);
    this.told.set('Stopped. The shop is as it was.');
  }

  private run(steps: ReturnType<ArchiveFiles['look']>): void {
    this.problem.set('');
    this.told.set('');
    this.step.set({ doing: 'Sending', percent: 0 });
    this.running = steps.subscribe({
      next: (step) => ('result' in step ? this.done(step.result) : this.step.set(step)),
      error: (failure: ApiFailure) => {
        this.step.set(null);
        this.problem.set(
          [...new Set(failure.faults.map(({ path, message }) => (path ? `${path}: ${message}` : message)))].slice(0, 5).join('. '),
        );
      },
    });
  }

  private done(result: ArchiveResult): void {
    this.step.set(null);
    this.result.set(result);
    if (!result.taken) return;
    this.told.set('Imported.');
    this.machines.load().subscribe({ error: () => undefined });
  }
}
