import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { drawnOff, figure, profileOf } from './model';
import { SketchBase } from './sketch-base';

const LEFT = 40;
const RIGHT = 690;
const ROW = 104;
/** Lower side of the straightedge, over the way. */
const EDGE = -30;

const NAMES: Readonly<Record<string, string>> = {
  forward: 'level as it is, from the side',
  reversed: 'level turned end for end',
  'toward-operator': 'straightedge facing you, from above',
  away: 'rolled over, read from the other side',
};

/**
 * A way and what is laid along it: a level on its foot stepped end to end, each step tilted as it read, or a
 * straightedge beside the way with the indicator run along it. A row for each way of reading.
 */
@Component({
  selector: 'iso-way-from-the-side',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './marks.css',
  template: `
    <svg [attr.viewBox]="'0 0 720 ' + (rows().length * row + 12)" role="group" aria-label="The way, with the places to read">
      @for (line of rows(); track line.name; let i = $index) {
        <g [attr.transform]="'translate(0 ' + (76 + i * row) + ')'">
          <text class="words" x="8" y="-58">{{ line.words }}</text>
          <path class="iron" d="M24 0H706V20H24Z" />
          @if (!foot()) {
            <path class="iron" fill-opacity="0.5" d="M30 -52H700V-42H30Z" />
            <path class="profile" [attr.d]="line.profile" />
          }
          @for (place of line.places; track place.mark.index) {
            <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' 0)'">
              @if (foot()) {
                <g [attr.transform]="'rotate(' + place.tilt + ')'">
                  <path class="seat" [attr.d]="place.body" />
                  <path class="vial" d="M-13 -12H13V-5H-13Z" />
                </g>
              } @else {
                <path class="seat" [attr.transform]="'translate(0 ' + place.y + ')'" d="M0 0 7 14H-7Z" />
              }
              <text [attr.y]="foot() ? -30 : 15" text-anchor="middle">{{ place.words }}</text>
            </g>
          }
        </g>
      }
    </svg>
  `,
})
export class WayFromTheSide extends SketchBase {
  protected readonly row = ROW;
  /** Length of the level's foot in mm: its steps stand for themselves; none along a straightedge. */
  protected readonly foot = computed(() =>
    this.setup()['method'] === 'straightedge' ? undefined : (this.setup()['base'] as number | undefined),
  );

  protected readonly rows = computed(() => {
    const marks = this.marks();
    const foot = this.foot() ?? 0;
    const rowOf = (mark: (typeof marks)[number]) => String(mark.keys['end'] ?? mark.keys['edge'] ?? 'forward');
    const places = marks.map((mark) => Number(mark.keys['at']));
    const [low, high] = [Math.min(...places), Math.max(...places) + foot];
    const scale = (RIGHT - LEFT) / (high - low || 1);
    const off = drawnOff(marks, foot ? 5 : 9, rowOf, foot > 0);
    const half = Math.max(10, (foot * scale) / 2 - 2);
    const names = [...new Set(marks.map(rowOf))];
    return names.map((name) => {
      const places = marks
        .filter((mark) => rowOf(mark) === name)
        .map((mark) => ({
          mark,
          x: LEFT + (Number(mark.keys['at']) - low + foot / 2) * scale,
          // The indicator is carried along the way and reads the edge above it: toward the stylus is down.
          y: EDGE + (off.get(mark) ?? 0),
          // + is the far end high; turned end for end the same slope counts the other way. Up is −y.
          tilt: (off.get(mark) ?? 0) * (name === 'reversed' ? 1 : -1),
          body: `M${-half} 0V-4H${-half + 8}V-16H${half - 8}V-4H${half}V0Z`,
          words: figure(mark.text),
        }));
      return { name, words: NAMES[name] ?? name, places, profile: profileOf(places) };
    });
  });
}
