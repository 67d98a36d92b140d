import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { shimTemplate, templateDxf, templateSvg, type TailstockBase, type Template } from '@isometra/core';
import { giveFile } from '../ui/give-file';
import { Button } from '../ui/controls';

/** Where the clamp bolts pass: in a row along the middle of the base. */
export function boltsOf({ length, width, bolt, bolts }: TailstockBase): { x: number; y: number; diameter: number }[] {
  if (!bolt) return [];
  const number = bolts ?? 1;
  return Array.from({ length: number }, (_, i) => ({ x: (length * (i + 1)) / (number + 1), y: width / 2, diameter: bolt }));
}

/** Cutting templates of a shim at 1:1, to print or to cut from. */
@Component({
  selector: 'iso-shim-templates',
  imports: [Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (made().template) {
      <p class="label">Cutting template, 1:1</p>
      <svg [attr.viewBox]="box()" role="img" aria-label="Outline of the shim">
        <polygon [attr.points]="points()" fill="var(--paper)" stroke="var(--ink)" vector-effect="non-scaling-stroke" />
        @for (hole of made().template!.holes; track $index) {
          <circle
            [attr.cx]="hole.x"
            [attr.cy]="height() - hole.y"
            [attr.r]="hole.radius"
            fill="none"
            stroke="var(--ink)"
            vector-effect="non-scaling-stroke"
          />
        }
      </svg>
      <p class="soft figures">{{ base()!.length }} × {{ base()!.width }} mm base</p>
      <p class="no-print">
        <button pButton type="button" (click)="save('svg')">SVG</button> <button pButton type="button" (click)="save('dxf')">DXF</button>
      </p>
    } @else {
      <p class="soft">{{ made().problem || 'Give the size of the tailstock base on the machine card to get a cutting template.' }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
      width: 100%;
    }
    svg {
      width: 100%;
      max-height: 140px;
    }
    .figures {
      font-size: 13px;
    }
  `,
})
export class ShimTemplates {
  readonly base = input<TailstockBase>();
  readonly title = input('shim');

  protected readonly made = computed((): { template?: Template; problem?: string } => {
    const base = this.base();
    if (!base) return {};
    const handle =
      base.handleWidth && base.handleDepth ? { x: base.length / 2, width: base.handleWidth, depth: base.handleDepth } : undefined;
    try {
      return { template: shimTemplate({ length: base.length, width: base.width, bolts: boltsOf(base), handle }) };
    } catch (error) {
      return { problem: `No template: ${(error as Error).message}. Look at the machine card.` };
    }
  });
  protected readonly height = computed(() => this.base()?.width ?? 0);
  protected readonly box = computed(() => `-2 -2 ${(this.base()?.length ?? 0) + 4} ${this.height() + 4}`);
  protected readonly points = computed(() =>
    this.made()
      .template?.outline.map(([x, y]) => `${x},${this.height() - y}`)
      .join(' '),
  );

  protected save(kind: 'svg' | 'dxf'): void {
    const { template } = this.made();
    if (!template) return;
    const [text, type] = kind === 'svg' ? [templateSvg(template, this.title()), 'image/svg+xml'] : [templateDxf(template), 'image/vnd.dxf'];
    giveFile(`${this.title().replace(/\s+/g, '-')}.${kind}`, type, text);
  }
}
