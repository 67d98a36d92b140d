import { ChangeDetectionStrategy, Component, ElementRef, inject, input, output, viewChild } from '@angular/core';
import { FileUpload } from 'primeng/fileupload';

/** A button that lets a file be chosen. The file stays in the browser: what becomes of it is the screen's business. */
@Component({
  selector: 'iso-file',
  imports: [FileUpload],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-fileupload
      mode="basic"
      [multiple]="many()"
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
  /** Several at once: each is told by itself. */
  readonly many = input(false);
  readonly chosen = output<globalThis.File>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly box = viewChild.required(FileUpload);

  /** Ask for a file, as a press of the button does. */
  open(): void {
    this.host.nativeElement.querySelector<HTMLInputElement>('input[type=file]')?.click();
  }

  protected take(files: readonly globalThis.File[]): void {
    this.box().clear();
    for (const file of this.many() ? files : files.slice(0, 1)) this.chosen.emit(file);
  }
}
