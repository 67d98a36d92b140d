import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { Router } from '@angular/router';
import { CHECKS, SHEET_FORMAT, type CheckDefinition } from '@isometra/core';
import type { RoundWrite } from '@isometra/contract';
import { faultWords, openSheet, type OpenedSheet } from '@isometra/work';
import { parsedJson } from '../data/api';
import { nowText } from '../data/clock';
import { newId } from '../data/id';
import { Rounds } from '../data/rounds';
import { Settings } from '../data/settings';
import { MachineStore } from '../machine/machine-store';
import { File as FileButton } from '../ui/file';
import { Notice } from '../ui/notice';

/** Mistakes of a file that are told at once. */
const TOLD = 5;

/** A round out of a sheet file: set-up, instrument and readings as they stand in it. */
@Component({
  selector: 'iso-sheet-in',
  imports: [FileButton, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="ask">
      <span>Read elsewhere, and saved as a sheet?</span>
      <iso-file label="Open a sheet file" accept=".json,application/json" (chosen)="open($event)" />
    </div>
    <iso-notice [text]="problem()" />
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      padding-top: 16px;
      border-top: 1px solid var(--line);
    }
    .ask {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 16px;
      align-items: center;
    }
  `,
})
export class SheetIn {
  readonly check = input.required<CheckDefinition>();
  private readonly machineStore = inject(MachineStore);
  private readonly rounds = inject(Rounds);
  private readonly settings = inject(Settings);
  private readonly router = inject(Router);
  protected readonly problem = signal('');

  protected async open(file: globalThis.File): Promise<void> {
    this.problem.set('');
    const raw = parsedJson(await file.text());
    if (raw === undefined) return this.problem.set(`${file.name} is not JSON. What would do: { "format": "${SHEET_FORMAT}", … }.`);
    const { opened, faults } = openSheet(raw);
    if (opened) return this.put(opened);
    const { check = '', instrument = null } = (raw ?? {}) as { check?: string; instrument?: RoundWrite['instrument'] };
    const more = faults.length > TOLD ? ` And ${faults.length - TOLD} more.` : '';
    this.problem.set(
      `${file.name} was not opened. ${faults
        .slice(0, TOLD)
        .map((fault) => faultWords(check, fault, instrument))
        .join(' ')}${more}`,
    );
  }

  private put({ round, readings }: OpenedSheet): void {
    const machine = this.machineStore.machine();
    if (!machine) return;
    if (round.check !== this.check().id)
      return this.problem.set(`This sheet is of another check: ${CHECKS.get(round.check)?.title ?? round.check}. Open it there.`);
    const [by, at] = [this.settings.by(), nowText()];
    const begun: RoundWrite = {
      ...{ ...round, id: newId(), machineId: machine.id, instrumentName: null, purpose: null, by, at, version: 1 },
      note: 'From a sheet file: it is dated when the file was opened.',
    };
    this.rounds.begin(
      begun,
      readings.map((reading) => ({ ...reading, id: newId(), supersedes: null, why: null, by, at })),
    );
    void this.router.navigate(['/machines', machine.id, 'bench', round.check, begun.id]);
  }
}
