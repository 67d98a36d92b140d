import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Surface } from '@isometra/contract';
import type { DeskZone } from '@isometra/work';
import { faceSize, placeOn, toneOf } from './face-place';

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
  protected readonly box = computed(() => faceSize(this.surface(), this.scale()));
  protected readonly drawn = computed(() => {
    const [place, tone] = [placeOn(this.surface(), this.scale()), toneOf(this.zones())];
    return this.zones().map((entry) => ({
      id: entry.zone.id,
      low: entry.zone.use !== 'bear',
      tone: tone(entry),
      points: entry.zone.outline.map(({ x, y }) => place(x, y).join(',')).join(' '),
    }));
  });
}
