import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { openSupports, supportsFile, type OpenedSupports } from '@isometra/work';
import { parsedJson } from '../data/api';
import { MachineStore } from '../machine/machine-store';
import { Button } from '../ui/controls';
import { File as FileButton } from '../ui/file';
import { giveJson } from '../ui/give-file';
import { notOpened } from '../ui/not-opened';
import { Notice } from '../ui/notice';

/** The faces of a casting and what is wanted of them, as a file that `isometra move` answers: saved, and opened again. */
@Component({
  selector: 'iso-move-file',
  imports: [Button, FileButton, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'no-print' },
  template: `
    <button pButton type="button" class="plain" (click)="save()">Save as a move file</button>
    <iso-file label="Open a move file" accept=".json,application/json" (chosen)="open($event)" />
    <iso-notice [text]="problem()" />
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 16px;
      align-items: center;
    }
  `,
})
export class MoveFile {
  /** What stands now. */
  readonly move = input.required<OpenedSupports>();
  /** What the casting is called. */
  readonly title = input.required<string>();
  readonly opened = output<OpenedSupports>();
  /** What was opened, in words. */
  readonly told = output<string>();
  private readonly store = inject(MachineStore);
  protected readonly problem = signal('');

  protected save(): void {
    giveJson(`${this.store.machine()?.card.number ?? ''}-${this.title()}-move.json`, supportsFile(this.move()));
  }

  protected async open(file: File): Promise<void> {
    this.problem.set('');
    const read = openSupports(parsedJson(await file.text()));
    if ('faults' in read) return this.problem.set(notOpened(file.name, read.faults));
    const { frame } = read.opened;
    if (frame !== this.move().frame) return this.problem.set(`${file.name} is of a ${frame}: it was not opened.`);
    this.opened.emit(read.opened);
    this.told.emit(`${file.name} is open. Save the faces to have them on the machine card.`);
  }
}
