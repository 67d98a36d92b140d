import { median } from '../../fit/median.js';
import type { Note } from '../../checks/define.js';
import { SQUARE, TOO_MUCH_BLUE } from '../spotCall.js';
import { bluenessOf, coloursOf } from './colours.js';
import { largestCircle } from './farthest.js';
import { patchesOf } from './patches.js';
import { layFlat, type Flat, type Pixels, type Scale, type Spot } from './frame.js';

/** Least area of a spot, mm². */
export const LEAST_SPOT = 0.5;
/** Less than this is a speck of dirt, mm². */
const SPECK = 0.06;
const SPECK_PIXELS = 4;

/** A part of a face, on the photograph laid flat or in mm on the face. */
export interface PrintZone {
  readonly id: string;
  readonly use: 'bear' | 'relieve' | 'ignore';
  /** Corners round it, mm on the face. */
  readonly outline: readonly Spot[];
}

export interface PrintSettings {
  readonly scale?: Scale;
  /** Rectangles of the photograph that do not count, px: oil grooves, a thumb. */
  readonly ignore?: readonly { readonly x: number; readonly y: number; readonly width: number; readonly height: number }[];
  /** Strokes of a brush that do not count, px of the photograph. */
  readonly strokes?: readonly { readonly x: number; readonly y: number; readonly radius: number }[];
  readonly zones?: readonly PrintZone[];
  /** How blue a pixel must be to be blue, 0.5 unless it was put right by eye: 0.2 to 0.8. */
  readonly threshold?: number;
  /** Called between the steps, with the part that is done; what it throws stops the reading. */
  readonly progress?: (done: number) => void;
}

/** What one part of a face shows. */
export interface ZonePrint {
  readonly id: string;
  readonly spots: number;
  readonly spotsPerSquare: number;
  readonly bearingShare: number;
  readonly area: number;
}

export interface Print {
  readonly spots: number;
  /** Over 645.16 mm² of what must bear; null without a scale. */
  readonly spotsPerSquare: number | null;
  /** 0 to 1 of what must bear. */
  readonly bearingShare: number;
  /** Diameter of the largest circle without blue inside what must bear, mm; null without a scale. */
  readonly largestBare: number | null;
  /** Of what must bear, mm²; null without a scale. */
  readonly area: number | null;
  readonly zones: readonly ZonePrint[];
  readonly notes: readonly Note[];
  /** What was seen where, to look over: the photograph laid flat. 0 bare, 1 blue, 2 does not count. */
  readonly overlay: {
    readonly width: number;
    readonly height: number;
    readonly perMm: number | null;
    readonly kinds: Uint8Array;
    readonly rgb: Uint8Array;
  };
}

const note = (code: string, text: string): Note => ({ code, severity: 'warning', text });

/** Which zone each pixel belongs to, by its number; −1 for none. Where zones overlap the later counts, as it lies on top. */
function zoneMap({ width, height, perMm }: Flat, zones: readonly PrintZone[]): Int16Array {
  const map = new Int16Array(zones.length ? width * height : 0).fill(-1);
  zones.forEach(({ outline }, k) => {
    if (outline.length < 3 || perMm === null) return;
    for (let y = 0; y < height; y++) {
      const v = (y + 0.5) / perMm;
      const cuts = outline
        .flatMap((a, i) => {
          const b = outline[(i + 1) % outline.length];
          return a.y <= v === b.y <= v ? [] : [(a.x + ((v - a.y) * (b.x - a.x)) / (b.y - a.y)) * perMm];
        })
        .sort((a, b) => a - b);
      for (let c = 0; c + 1 < cuts.length; c += 2) {
        const [from, to] = [Math.max(0, Math.ceil(cuts[c] - 0.5)), Math.min(width, Math.ceil(cuts[c + 1] - 0.5))];
        for (let x = from; x < to; x++) map[y * width + x] = k;
      }
    }
  });
  return map;
}

/** 1 where the face must bear: seen, not ignored, in no zone that is relieved or left out. */
function bearingMask(flat: Flat, zones: Int16Array, { ignore = [], strokes = [], zones: named = [] }: PrintSettings): Uint8Array {
  const { width, height, seen, onPhoto } = flat;
  const bears = seen.slice();
  if (ignore.length + strokes.length + named.length === 0) return bears;
  const outside = (x: number, y: number): boolean =>
    ignore.some((area) => x >= area.x && y >= area.y && x < area.x + area.width && y < area.y + area.height) ||
    strokes.some((stroke) => Math.hypot(x - stroke.x, y - stroke.y) <= stroke.radius);
  const looks = ignore.length > 0 || strokes.length > 0;
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      if (!bears[i]) continue;
      if (named.length > 0 && (zones[i] < 0 || named[zones[i]].use !== 'bear')) bears[i] = 0;
      else if (looks) {
        const place = onPhoto(x + 0.5, y + 0.5);
        if (outside(place.x, place.y)) bears[i] = 0;
      }
    }
  return bears;
}

/** Places between which the largest circle is looked for, at most. */
const COARSE = 350_000;

/** Radius of the largest circle without blue, px: on a coarser grid in a large picture, closed where any of its pixels is. */
function largestBareRadius(bears: Uint8Array, blue: Uint8Array, width: number, height: number): number {
  const step = Math.max(1, Math.ceil(Math.sqrt((width * height) / COARSE)));
  const [w, h] = [Math.ceil(width / step), Math.ceil(height / step)];
  const closed = new Uint8Array(w * h);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) if (!bears[i] || blue[i]) closed[Math.floor(y / step) * w + Math.floor(x / step)] = 1;
  return step * largestCircle(closed, w, h);
}

const GLARE = 250;
const MUCH_GLARE = 0.02;

/** Part of what must bear that shines so brightly that its colour is gone. */
function glareOf({ rgb }: Flat, bears: Uint8Array): number {
  let [glaring, all] = [0, 0];
  for (let i = 0; i < bears.length; i += 3) {
    if (!bears[i]) continue;
    all++;
    if (rgb[3 * i] >= GLARE && rgb[3 * i + 1] >= GLARE && rgb[3 * i + 2] >= GLARE) glaring++;
  }
  return all ? glaring / all : 0;
}

const count = (mask: Uint8Array, of: (i: number) => boolean = () => true): number => {
  let sum = 0;
  for (let i = 0; i < mask.length; i++) if (mask[i] && of(i)) sum++;
  return sum;
};

/** What of a photograph is to be taken with care. @param share of the face that bears blue. @param glare share that glares. */
function notesOf({
  scaled,
  blueSeen,
  share,
  glare,
}: {
  readonly scaled: boolean;
  readonly blueSeen: boolean;
  readonly share: number;
  readonly glare: number;
}): Note[] {
  const notes: Note[] = [];
  if (!scaled)
    notes.push(
      note(
        'no-scale',
        'The photograph has no scale: spots per square, the largest bare circle and the area are not known. Give two points and their distance, or four corners and the size.',
      ),
    );
  if (!blueSeen) notes.push(note('no-blue', 'No blue is seen in the photograph.'));
  if (glare > MUCH_GLARE)
    notes.push(
      note(
        'glare',
        `${Math.round(100 * glare)} % of it glares, so nothing can be seen there: light it from the side, or put dye on before the blue.`,
      ),
    );
  if (share > TOO_MUCH_BLUE)
    notes.push(
      note('too-much-blue', 'Nearly half of it is blue: that may be too thick a film. A thinner one shows where it really bears.'),
    );
  return notes;
}

/** Patches of blue that are large enough for a spot. @param perSquareMm pixels to a mm²; null without a scale. */
function spotsOf(blue: Uint8Array, width: number, height: number, perSquareMm: number | null) {
  const patches = patchesOf(blue, width, height, perSquareMm === null ? SPECK_PIXELS : Math.max(SPECK_PIXELS, SPECK * perSquareMm));
  // Without a scale a patch counts that is a fifth of the usual one.
  const least = perSquareMm === null ? median(patches.map(({ surface }) => surface)) / 5 : LEAST_SPOT * perSquareMm - 0.5;
  return patches.filter(({ surface }) => surface >= least);
}

/**
 * What a photograph of a blued face shows: spots, how much of it bears, the largest bare circle, zone by zone.
 *
 * A spot is a connected patch of blue (corners count) of 0.5 mm² or more; touching spots count once.
 *
 * @throws FaultError for a scale that makes no sense, and whatever `progress` throws. Source: docs/methods/scraping.md.
 */
export function readPrint(photo: Pixels, settings: PrintSettings = {}): Print {
  const { scale, threshold = 0.5, progress = () => undefined } = settings;
  // Zones lie on the face in mm: without a scale nobody knows where.
  const named = scale ? (settings.zones ?? []) : [];
  progress(0.05);
  const flat = layFlat(photo, scale);
  const { width, height, perMm, rgb } = flat;
  progress(0.4);
  const zones = zoneMap(flat, named);
  const bears = bearingMask(flat, zones, { ...settings, zones: named });
  const colours = coloursOf({ rgb, seen: bears, perMm });
  progress(0.55);
  const blueness = colours && bluenessOf({ ...flat, seen: bears }, colours);
  const blue = bears.map((bear, i) => (blueness && bear && blueness[i] > threshold ? 1 : 0));
  progress(0.7);
  const perSquareMm = flat.pixelArea === null ? null : 1 / flat.pixelArea;
  const spots = spotsOf(blue, width, height, perSquareMm);
  progress(0.85);
  const bearing = count(bears);
  const radius = perMm === null ? null : largestBareRadius(bears, blue, width, height);
  progress(0.98);
  const mm2 = (pixels: number): number => (perSquareMm === null ? NaN : pixels / perSquareMm);
  const area = perSquareMm === null ? null : mm2(bearing);
  const share = bearing ? count(blue) / bearing : 0;
  const glare = glareOf(flat, bears);
  return {
    spots: spots.length,
    spotsPerSquare: area === null ? null : area > 0 ? (spots.length / area) * SQUARE : 0,
    bearingShare: share,
    largestBare: radius === null || perMm === null ? null : (2 * radius) / perMm,
    area,
    zones: named.map(({ id }, k) => {
      const own = count(bears, (i) => zones[i] === k);
      const counted = spots.filter(({ at }) => zones[at] === k).length;
      return {
        id,
        spots: counted,
        spotsPerSquare: own ? (counted / mm2(own)) * SQUARE : 0,
        bearingShare: own ? count(blue, (i) => zones[i] === k) / own : 0,
        area: mm2(own),
      };
    }),
    notes: notesOf({ scaled: perMm !== null, blueSeen: colours !== null, share, glare }),
    overlay: { width, height, perMm, kinds: blue.map((value, i) => (bears[i] ? value : 2)), rgb },
  };
}
