import { computed, signal } from '@angular/core';
import simplify from 'simplify-js';

/** Corners of a zone that is drawn. */
export type Stroke = readonly { readonly x: number; readonly y: number }[];

/** A stroke no larger than this is a touch, px of the drawing. */
const TOUCH = 12;
/** Corners that a zone may have. */
const CORNERS = 24;

/** A stroke round a part of a face while it is drawn, px of the drawing. */
export class ZoneStroke {
  private readonly points = signal<Stroke>([]);
  private drawn = false;
  /** As a polygon shows it; empty before there are two points. */
  readonly shown = computed(() =>
    this.points().length > 1
      ? this.points()
          .map(({ x, y }) => `${x},${y}`)
          .join(' ')
      : '',
  );

  begin(point: Stroke[number] | null): void {
    this.drawn = false;
    this.points.set(point ? [point] : []);
  }

  draw(point: Stroke[number]): void {
    if (this.points().length) this.points.update((stroke) => [...stroke, point]);
  }

  /** Its corners, few enough for a zone; null where it was a touch. */
  end(): Stroke | null {
    const stroke = [...this.points()];
    this.points.set([]);
    const size = (of: (point: Stroke[number]) => number) => Math.max(...stroke.map(of)) - Math.min(...stroke.map(of));
    if (stroke.length < 3 || size(({ x }) => x) < TOUCH || size(({ y }) => y) < TOUCH) return null;
    this.drawn = true;
    let corners = simplify(stroke, 2, true);
    for (let room = 4; corners.length > CORNERS; room *= 2) corners = simplify(stroke, room, true);
    return corners.length >= 3 ? corners : null;
  }

  drop(): void {
    this.points.set([]);
  }

  /** Whether a click is a touch of its own: the one that ends a stroke is none. */
  get touched(): boolean {
    return !this.drawn;
  }
}
