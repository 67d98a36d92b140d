import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { shimTemplate, templateDxf, templateSvg, type TailstockBase, type Template } from '@isometra/core';
import { ShopStore } from '../data/shop';
import { giveFile } from '../ui/give-file';
import { Button } from '../ui/controls';

const MARGIN = 2;
/** Room for the bar that is checked with a rule, mm. */
const BAR = 14;
/** The long side of a sheet less its margins, mm. */
const SHEET = { A4: 277, Letter: 259 } as const;

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
      <p class="label">Cutting template, 1:1 on paper</p>
      <svg [attr.viewBox]="box()" [style.--wide]="wide() + 'mm'" [style.--high]="high() + 'mm'" role="img" aria-label="Outline of the shim">
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
        <!-- Whatever a printer does to the drawing, it does to this bar too. -->
        <g class="scale">
          <path [attr.d]="'M0 ' + barAt() + 'v-3m0 1.5h50m0-1.5v3'" fill="none" stroke="var(--ink)" vector-effect="non-scaling-stroke" />
          <text x="0" [attr.y]="barAt() + 4">0</text>
          <text x="50" [attr.y]="barAt() + 4">50 mm</text>
        </g>
      </svg>
      <p class="soft figures">
        {{ base()!.length }} × {{ base()!.width }} mm base. Lay a rule on the bar before you cut: it must be 50 mm long.
        {{ tooLong() ? 'Longer than a sheet of ' + shop.paper() + ': print it on a larger one, or cut from the DXF.' : '' }}
      </p>
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
      font-size: 0.8125rem;
    }
    .scale text {
      font: 3.5px var(--figures);
    }
    @media print {
      /* What would be wider than the sheet is cut off, never made smaller: a browser shrinks a page that runs over. */
      :host {
        overflow: hidden;
        break-inside: avoid;
      }
      svg {
        width: var(--wide);
        height: var(--high);
        max-width: none;
        max-height: none;
      }
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
  /** The drawing with its margin and the bar under it, mm. */
  protected readonly wide = computed(() => Math.max(70, this.base()?.length ?? 0) + 2 * MARGIN);
  protected readonly high = computed(() => this.height() + 2 * MARGIN + BAR);
  protected readonly barAt = computed(() => this.height() + BAR / 2);
  protected readonly box = computed(() => `${-MARGIN} ${-MARGIN} ${this.wide()} ${this.high()}`);
  protected readonly shop = inject(ShopStore);
  /** A sheet on its side has so much room, mm. */
  protected readonly tooLong = computed(() => this.wide() > SHEET[this.shop.paper()]);
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
