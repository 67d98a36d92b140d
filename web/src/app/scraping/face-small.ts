import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Surface } from '@isometra/contract';
import type { DeskZone } from '@isometra/work';

/** Room that a face is drawn small in, px. */
const ROOM = { width: 190, height: 84 };
/** A narrow way is drawn so tall at least, px. */
const TALL = 34;

/** A face drawn small: its zones, deeper blue for more passes left. */
@Component({
  selector: 'iso-face-small',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      [attr.viewBox]="'0 0 ' + box().width + ' ' + box().height"
      [attr.width]="box().width"
      [attr.height]="box().height"
      aria-hidden="true"
    >
      @for (zone of drawn(); track zone.id) {
        <polygon [attr.points]="zone.points" [class.low]="zone.low" [style.fill-opacity]="zone.tone" />
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
    }
    svg {
      display: block;
      overflow: visible;
    }
    polygon {
      fill: var(--blue);
      stroke: var(--ink);
      stroke-width: 1.4;
      stroke-linejoin: round;
    }
    .low {
      stroke-dasharray: 4 3;
    }
  `,
})
export class FaceSmall {
  readonly surface = input.required<Surface>();
  readonly zones = input.required<readonly DeskZone[]>();

  private readonly scale = computed(() => {
    const { width, height } = this.surface();
    const along = Math.min(ROOM.width / width, ROOM.height / height);
    return { along, across: Math.max(along, Math.min(TALL / height, ROOM.height / height)) };
  });
  protected readonly box = computed(() => {
    const { width, height } = this.surface();
    const { along, across } = this.scale();
    return { width: Math.round(width * along), height: Math.round(height * across) };
  });
  protected readonly drawn = computed(() => {
    const { along, across } = this.scale();
    const { width, mirrored } = this.surface();
    const most = Math.max(1, ...this.zones().map(({ left }) => left ?? 0));
    return this.zones().map(({ zone, left }) => ({
      id: zone.id,
      low: zone.use !== 'bear',
      tone: left ? 0.15 + (0.7 * left) / most : 0,
      points: zone.outline.map(({ x, y }) => `${(mirrored ? width - x : x) * along},${y * across}`).join(' '),
    }));
  });
}
