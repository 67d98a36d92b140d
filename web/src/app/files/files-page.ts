import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { ApiFailure } from '../data/api';
import { ArchiveFiles } from '../data/archive-files';
import { Machines } from '../data/machines';
import { orNothing } from '../ui/asking';
import { Notice } from '../ui/notice';
import { ArchiveIn } from './archive-in';
import { PaperOut } from './paper-out';
import { ReportOut } from './report-out';

/** What leaves the shop, and what comes in: archives. */
@Component({
  selector: 'iso-files-page',
  imports: [ArchiveIn, Notice, PaperOut, ReportOut],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header><h1>Files</h1></header>
    <iso-notice [text]="problem()" />
    <iso-report-out [machines]="shown()" [asked]="machine()" />
    <div class="columns">
      <section>
        <h2>Archive files</h2>
        <p>
          A zip with everything that was entered: surveys, readings, moves, faces, notes, photographs, kit and limits. Keep it as a copy, or
          import it into another shop.
        </p>
        <p><a class="act" [href]="address()" download>The whole shop</a></p>
        <h3>One machine</h3>
        <ul>
          @for (machine of shown(); track machine.id) {
            <li>
              <a [href]="address({ machine: machine.card.number })" download
                ><b class="figures">{{ machine.card.number }}</b></a
              >
              <span class="soft">{{ machine.card.nickname }}</span>
            </li>
          }
        </ul>
      </section>
      <iso-archive-in />
    </div>
    <iso-paper-out />
  `,
  styleUrl: './columns.css',
  styles: `
    :host {
      gap: 22px;
      padding: 26px 32px 40px;
    }
    @media (width < 900px) {
      :host {
        padding: 16px;
      }
    }
  `,
})
export class FilesPage {
  /** The machine whose report is wanted, as it stands in the address. */
  readonly machine = input('', { transform: orNothing });
  private readonly files = inject(ArchiveFiles);
  private readonly machines = inject(Machines);
  protected readonly problem = signal('');
  private readonly all = toSignal(this.machines.all$, { initialValue: [] });
  protected readonly shown = computed(() => this.all().filter(({ archived }) => !archived));

  constructor() {
    this.machines.load().subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
  }

  protected address(of: Readonly<Record<string, string>> = {}): string {
    return this.files.address(of);
  }
}
