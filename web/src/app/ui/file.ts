import { ChangeDetectionStrategy, Component, input, output, viewChild } from '@angular/core';
import { FileUpload } from 'primeng/fileupload';

/** A button that lets a file be chosen. The file stays in the browser: what becomes of it is the screen's business. */
@Component({
  selector: 'iso-file',
  imports: [FileUpload],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-fileupload
      mode="basic"
      [customUpload]="true"
      [auto]="true"
      [accept]="accept()"
      [chooseLabel]="label()"
      [pt]="{ input: { 'aria-label': label() } }"
      (uploadHandler)="take($event.files)"
    />
  `,
  styles: `
    :host {
      display: inline-block;
    }
  `,
})
export class File {
  readonly label = input.required<string>();
  /** Kinds of file, as a file field takes them. */
  readonly accept = input('');
  readonly chosen = output<globalThis.File>();
  private readonly box = viewChild.required(FileUpload);

  protected take(files: readonly globalThis.File[]): void {
    this.box().clear();
    if (files[0]) this.chosen.emit(files[0]);
  }
}
