declare module 'lineclip' {
  /** What of a line lies in a box of left, top, right, bottom: as many lines as come of it. */
  export function clipPolyline(points: [number, number][], box: [number, number, number, number]): [number, number][][];
  /** What of an area lies in it. */
  export function clipPolygon(points: [number, number][], box: [number, number, number, number]): [number, number][];
}
