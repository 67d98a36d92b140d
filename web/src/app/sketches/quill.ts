import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { drawnOff, figure, profileOf } from './model';
import { SketchBase } from './sketch-base';

const LEFT = 150;
const RIGHT = 440;
const VIEWS = [
  { plane: 'h', y: 84, title: 'from above' },
  { plane: 'v', y: 234, title: 'from the side' },
] as const;

/** The tailstock with its quill run out, from above (the operator at the bottom) and from the side; places count from the tailstock toward the free end. */
@Component({
  selector: 'iso-quill',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './marks.css',
  template: `
    <svg [attr.viewBox]="'0 0 720 ' + 304 * apart()" role="group" aria-label="Quill of the tailstock, with the places to read">
      @for (view of views(); track view.plane) {
        <g [attr.transform]="'translate(0 ' + view.y * apart() + ')'">
          <text class="words" x="8" y="-56">{{ view.title }}</text>
          <path class="iron" d="M500 -46H690V46H500Z M476 -30H500V30H476Z" />
          <path class="iron" d="M120 -20H476V20H120Z" fill-opacity="0.6" />
          <path class="iron" d="M120 -7 132 0 120 7Z" />
          <line class="axis" x1="60" x2="710" y1="0" y2="0" />
          @if (view.plane === 'h') {
            <text class="words" x="600" y="66" text-anchor="middle">operator</text>
          }
          <path class="profile" [attr.d]="view.profile" />
          @for (place of view.places; track place.mark.index) {
            <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' ' + place.y + ')'">
              <path class="seat" [attr.d]="place.tip" />
              <text [attr.y]="place.textY" text-anchor="middle">{{ place.words }}</text>
            </g>
          }
        </g>
      }
    </svg>
  `,
})
export class Quill extends SketchBase {
  protected override readonly farther = 2;

  protected readonly views = computed(() => {
    const marks = this.marks();
    const off = drawnOff(marks, 9, (mark) => `${String(mark.keys['plane'])} ${String(mark.keys['turn'])}`);
    const longest = Math.max(1, ...marks.map((mark) => Number(mark.keys['at'])));
    return VIEWS.map((view) => {
      const below = view.plane === 'h' && this.setup()['side'] !== 'rear';
      const side = below ? 1 : -1;
      const places = marks
        .filter((mark) => mark.keys['plane'] === view.plane)
        .map((mark) => {
          const turned = mark.keys['turn'] === 180 ? 12 : 0;
          return {
            mark,
            x: RIGHT - (Number(mark.keys['at']) / longest) * (RIGHT - LEFT) + turned,
            y: side * 24 + side * (off.get(mark) ?? 0),
            tip: below ? 'M0 0 8 15H-8Z' : 'M0 0 8 -15H-8Z',
            textY: side * (turned ? 44 : 29) + 4,
            words: figure(mark.text),
          };
        });
      return { ...view, places, profile: profileOf(places) };
    });
  });
}
