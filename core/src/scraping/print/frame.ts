import { solveLinear } from '../../fit/linearSystem.js';
import { FaultError, type Fault } from '../../input/faults.js';

/** A picture as it is looked at: four bytes to a pixel (red, green, blue, how solid), rows from the top. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array | Uint8ClampedArray;
}

/** A place on a photograph, px from its top left. */
export interface Spot {
  readonly x: number;
  readonly y: number;
}

/** How large things on a photograph are: the four corners of a face of known size, two points at a known distance, or not known. */
export type Scale =
  | {
      readonly corners: readonly Spot[];
      readonly size: { readonly width: number; readonly height: number };
      /** The corners stand in the order of the face, also where it is seen as in a mirror: they are taken as they are named. */
      readonly named?: boolean;
    }
  | { readonly marks: readonly Spot[]; readonly apart: number }
  | undefined;

/** Finest that a face is drawn anew, px a mm, and most px in all: a spot of 0.5 mm² has thirty and more of them on a face of 200 × 150. */
const FINEST = 14;
const MOST = 2_000_000;

/** A face laid flat: three bytes to a pixel, and which pixels the photograph shows. */
export interface Flat {
  readonly width: number;
  readonly height: number;
  /** px a mm; null where the photograph has no scale. */
  readonly perMm: number | null;
  /** Area of one pixel, mm². */
  readonly pixelArea: number | null;
  readonly rgb: Uint8Array;
  /** 1 where the photograph shows the face. */
  readonly seen: Uint8Array;
  /** Where a place of the face, px of this, lies on the photograph. */
  readonly onPhoto: (x: number, y: number) => Spot;
}

const apart = (a: Spot, b: Spot): number => Math.hypot(a.x - b.x, a.y - b.y);
const turn = (a: Spot, b: Spot, c: Spot): number => (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x);

/** Corners in order round the face, the way the hands of a clock go, from the one named first. */
function roundTheFace(corners: readonly Spot[]): readonly Spot[] {
  const [first, ...rest] = corners;
  const orders = [
    rest,
    [rest[2], rest[1], rest[0]],
    [rest[0], rest[2], rest[1]],
    [rest[1], rest[2], rest[0]],
    [rest[1], rest[0], rest[2]],
    [rest[2], rest[0], rest[1]],
  ];
  const right = orders
    .map((order) => [first, ...order])
    .find((all) => all.every((corner, i) => turn(corner, all[(i + 1) % 4], all[(i + 2) % 4]) > 1e-6));
  if (!right) throw onOneLine();
  return right;
}

const fault = (path: string, message: string, example: string): FaultError => new FaultError([{ path, message, example } satisfies Fault]);

/** Corners that were named in an order that crosses itself would lay the face flat twisted: they are asked for again. */
function inOrder(corners: readonly Spot[]): readonly Spot[] {
  const turns = corners.map((corner, i) => turn(corner, corners[(i + 1) % 4], corners[(i + 2) % 4]));
  if (turns.some((value) => Math.abs(value) <= 1e-6)) throw onOneLine();
  if (new Set(turns.map(Math.sign)).size > 1)
    throw fault('corners', 'cross each other: name them one beside the other, round the face', '10,10,400,12,398,300,9,296');
  return corners;
}

const onOneLine = (): FaultError =>
  fault('corners', 'must be the four corners of the face: three of them lie on one line', '10,10,400,12,398,300,9,296');

/** The eight figures of a straight-line view: x = (a·x + b·y + c)/(g·x + h·y + 1), y = (d·x + e·y + f)/(…). */
type View = readonly number[];

/** The view that takes four places of the face to where they lie on the photograph. */
function viewOf(face: readonly Spot[], photo: readonly Spot[]): View {
  const rows = face.flatMap(({ x, y }, i) => {
    const { x: u, y: v } = photo[i];
    return [
      [x, y, 1, 0, 0, 0, -u * x, -u * y],
      [0, 0, 0, x, y, 1, -v * x, -v * y],
    ];
  });
  const solved = solveLinear(
    rows,
    photo.flatMap(({ x, y }) => [[x], [y]]),
  );
  if (!solved) throw onOneLine();
  return solved.map(([value]) => value);
}

function through([a, b, c, d, e, f, g, h]: View, x: number, y: number): Spot {
  const w = g * x + h * y + 1;
  return { x: (a * x + b * y + c) / w, y: (d * x + e * y + f) / w };
}

/** How a photograph is laid flat. */
interface Laying {
  readonly width: number;
  readonly height: number;
  readonly perMm: number | null;
  readonly pixelArea: number | null;
  readonly view: View;
  /** px of the photograph to one of the face. */
  readonly step: number;
}

function byCorners(
  photo: Pixels,
  { corners, size: { width: W, height: H }, named = false }: Extract<Scale, { readonly corners: readonly Spot[] }>,
): Laying {
  const outside = corners.findIndex(
    ({ x, y }) => x < -photo.width / 2 || y < -photo.height / 2 || x > 1.5 * photo.width || y > 1.5 * photo.height,
  );
  if (outside >= 0)
    throw fault(
      'corners',
      `corner ${outside + 1} lies far outside the photograph, which has ${photo.width} × ${photo.height} px`,
      `${photo.width - 1},${photo.height - 1}`,
    );
  const ordered = named ? inOrder(corners) : roundTheFace(corners);
  const [top, right, bottom, left] = ordered.map((corner, i) => apart(corner, ordered[(i + 1) % 4]));
  const native = Math.max(top / W, bottom / W, right / H, left / H);
  const perMm = Math.min(FINEST, native, Math.sqrt(MOST / (W * H)));
  const [width, height] = [Math.max(1, Math.round(W * perMm)), Math.max(1, Math.round(H * perMm))];
  const face = [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ];
  return { width, height, perMm, pixelArea: (W * H) / (width * height), view: viewOf(face, ordered), step: native / perMm };
}

function byScale(photo: Pixels, native: number | null): Laying {
  const room = Math.sqrt(MOST / (photo.width * photo.height));
  const smaller = Math.min(1, room, native === null ? 1 : FINEST / native);
  const [width, height] = [Math.max(1, Math.round(photo.width * smaller)), Math.max(1, Math.round(photo.height * smaller))];
  const view = [photo.width / width, 0, 0, 0, photo.height / height, 0, 0, 0];
  const pixelArea = native === null ? null : (photo.width * photo.height) / (native ** 2 * width * height);
  return { width, height, perMm: native === null ? null : native * smaller, pixelArea, view, step: 1 / smaller };
}

/**
 * A photograph laid flat: perspective straightened by four corners (named round the face from its top left), or as it is.
 *
 * Each pixel is the mean of the ones that it covers on the photograph, so that a smaller picture has less noise.
 *
 * @throws FaultError at `corners`, `size`, `marks` or `apart`.
 */
export function layFlat(photo: Pixels, scale: Scale): Flat {
  const { width, height, perMm, pixelArea, view, step } = layingOf(photo, scale);
  const [a, b, c, d, e, f, g, h] = view;
  const [rgb, seen] = [new Uint8Array(3 * width * height), new Uint8Array(width * height)];
  const { data, width: across, height: down } = photo;
  const n = Math.max(1, Math.min(4, Math.round(step)));
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      let red = 0;
      let green = 0;
      let blue = 0;
      let count = 0;
      for (let k = 0; k < n; k++)
        for (let j = 0; j < n; j++) {
          const s = x + (j + 0.5) / n;
          const t = y + (k + 0.5) / n;
          const w = g * s + h * t + 1;
          const u = Math.floor((a * s + b * t + c) / w);
          const v = Math.floor((d * s + e * t + f) / w);
          if (u < 0 || v < 0 || u >= across || v >= down) continue;
          const at = 4 * (v * across + u);
          red += data[at];
          green += data[at + 1];
          blue += data[at + 2];
          count++;
        }
      if (count === 0) continue;
      seen[i] = 1;
      rgb[3 * i] = red / count + 0.5;
      rgb[3 * i + 1] = green / count + 0.5;
      rgb[3 * i + 2] = blue / count + 0.5;
    }
  return { width, height, perMm, pixelArea, rgb, seen, onPhoto: (x, y) => through(view, x, y) };
}

function layingOf(photo: Pixels, scale: Scale): Laying {
  if (!scale) return byScale(photo, null);
  if ('marks' in scale) {
    const length = apart(scale.marks[0], scale.marks[1]);
    if (!(length >= 4)) throw fault('marks', 'must be two points that lie apart on the photograph', '100,80,1500,90');
    if (!(scale.apart > 0)) throw fault('apart', 'must be the distance of the two points, mm', '100');
    return byScale(photo, length / scale.apart);
  }
  const { width, height } = scale.size;
  if (!(width > 0 && height > 0 && width <= 20_000 && height <= 20_000))
    throw fault('size', 'must be the width and the height of the face, mm', '200,100');
  return byCorners(photo, scale);
}
