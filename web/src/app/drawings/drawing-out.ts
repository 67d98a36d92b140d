import { ChangeDetectionStrategy, Component, input, signal } from '@angular/core';
import { Button } from '../ui/controls';
import { giveFile } from '../ui/give-file';
import { Notice } from '../ui/notice';
import type { FlatDrawing } from './flat';

/** Units of a drawing that is no scale of anything, as a document: a screen's dot is a quarter of a millimetre. */
const AS_DOCUMENT = 0.25;

/** The drawing that lies in something; undefined where none does. */
async function flattened(host: HTMLElement): Promise<FlatDrawing | undefined> {
  const drawing = host.querySelector('svg');
  return drawing ? (await import('./flat')).flatten(drawing) : undefined;
}

/** Saves the drawing beside it as it is seen now: as SVG, or as DXF for another program. */
@Component({
  selector: 'iso-drawing-out',
  imports: [Button, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'no-print' },
  template: `
    <span class="soft">{{ mmPerUnit() === null ? 'Save the drawing:' : 'Save it 1 : 1:' }}</span>
    <button pButton type="button" class="plain" [attr.aria-label]="'Save ' + title() + ' as SVG'" (click)="save('svg')">SVG</button>
    <button pButton type="button" class="plain" [attr.aria-label]="'Save ' + title() + ' as DXF'" (click)="save('dxf')">DXF</button>
    <iso-notice [text]="problem()" />
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 12px;
      align-items: baseline;
    }
  `,
})
export class DrawingOut {
  /** What the drawing lies in; or what draws it anew, where it is shown otherwise than it is. */
  readonly of = input.required<HTMLElement | (() => FlatDrawing)>();
  /** What it is called: the name of its file too. */
  readonly title = input.required<string>();
  /** Millimetres that one unit of it stands for; null where it is drawn to no scale. */
  readonly mmPerUnit = input<number | null>(null);
  protected readonly problem = signal('');

  protected async save(kind: 'svg' | 'dxf'): Promise<void> {
    const of = this.of();
    const flat = typeof of === 'function' ? of() : await flattened(of);
    this.problem.set(flat ? '' : 'There is nothing drawn yet.');
    if (!flat) return;
    const { svgText, dxfText } = await import('./written');
    const sheet = { title: this.title(), mmPerUnit: this.mmPerUnit() ?? AS_DOCUMENT };
    const [text, type] = kind === 'svg' ? [svgText(flat, sheet), 'image/svg+xml'] : [dxfText(flat, sheet), 'image/vnd.dxf'];
    giveFile(`${this.title().replace(/[^\p{L}\p{N}.-]+/gu, '-')}.${kind}`, type, text);
  }
}
