import { parseQuantity } from '../units/parse.js';

/** A number: whole, with decimals, a fraction, or a whole number and a fraction; then its unit. */
const PLACE = /([+\-−–]?(?:\d+\s+\d+\/\d+|\d+\/\d+|\d*[.,]\d+|\d+))\s*(mm|cm|m|inches|inch|in|ft|thou|["″”])?(?=$|[\s,;])/y;
const BETWEEN = /[\s,;]+/y;
/** "20 to 380, 4 places". */
const SPREAD = /^(.+?)\s*(?:\bto\b|…|\.\.\.?)\s*(.+?)\s*[,;]\s*(\d{1,3})\s*(?:places?|pads?)?$/i;
const MOST = 500;

/** A list of places as people write it. */
export interface PlaceTexts {
  /** Each as a text that is read by itself: "16 in"; bare where no unit was written. */
  readonly places: readonly string[];
  /** Whether a unit was written anywhere. */
  readonly withUnit: boolean;
}

/**
 * Places along something, typed in one line: "20 180 380", "2, 16 in", "20; 180,5 mm", "20 to 380, 4 places". A unit counts for those
 * before it that have none.
 *
 * @returns undefined where it is no such list, or one that may be read two ways: "20,180".
 */
export function readPlaces(text: string): PlaceTexts | undefined {
  const trimmed = text.trim();
  const spread = SPREAD.exec(trimmed);
  if (spread) return spreadOver(spread[1], spread[2], Number(spread[3]));
  const found = tokensOf(trimmed);
  if (!found) return undefined;
  const known = found.map(({ unit }) => unit);
  const unitOf = (i: number): string => known.slice(i).find(Boolean) ?? known.slice(0, i).findLast(Boolean) ?? '';
  return { places: found.map(({ figure }, i) => `${figure} ${unitOf(i)}`.trim()), withUnit: known.some(Boolean) };
}

/** A line in which each comma close up is either a decimal sign or a gap; undefined where it may be both. */
function commasRead(text: string): string | undefined {
  if (!/\d,\d/.test(text)) return text;
  // Commas close up are decimal signs only where something else parts the numbers; one alone may be either.
  const parted = /[\s;]/.test(text.replace(/\s*(?:mm|cm|m|inches|inch|in|ft|thou|["″”])$/, ''));
  if (!parted) return text.split(',').length < 3 ? undefined : text.replaceAll(',', ' ');
  return /(?:^|\D)\d{1,3},\d{3}(?:\D|$)/.test(text) ? undefined : text;
}

function tokensOf(text: string): { readonly figure: string; readonly unit: string }[] | undefined {
  const plain = commasRead(text);
  if (plain === undefined) return undefined;
  const found: { figure: string; unit: string }[] = [];
  for (let at = 0; at < plain.length;) {
    PLACE.lastIndex = at;
    const token = PLACE.exec(plain);
    if (!token || found.length >= MOST) return undefined;
    found.push({ figure: token[1].replace(',', '.'), unit: token[2] ?? '' });
    at = PLACE.lastIndex;
    BETWEEN.lastIndex = at;
    if (BETWEEN.exec(plain)) at = BETWEEN.lastIndex;
    else if (at < plain.length) return undefined;
  }
  return found.length ? found : undefined;
}

/** So many places from the first to the last, in the unit of the last. */
function spreadOver(first: string, last: string, number: number): PlaceTexts | undefined {
  const both = readPlaces(`${first}; ${last}`);
  if (both?.places.length !== 2 || number < 2) return undefined;
  const [from, to] = both.places.map((place) => parseQuantity(place, 'length'));
  if (!from.ok || !to.ok) return undefined;
  const unit = /[a-z"″”]+$/i.exec(both.places[1])?.[0] ?? '';
  const one = parseQuantity(`1 ${unit || 'mm'}`, 'length');
  const scale = one.ok ? one.value : 1;
  const places = Array.from({ length: number }, (_, i) => (from.value + ((to.value - from.value) * i) / (number - 1)) / scale);
  return {
    places: places.map((place) => `${Number(place.toFixed(unit === '' || unit === 'mm' ? 1 : 3))} ${unit}`.trim()),
    withUnit: both.withUnit,
  };
}

/** The list as one line, its unit once at the end where all have the same: "20, 180, 380 mm". @param unit of bare figures. */
export function placesLine({ places, withUnit }: PlaceTexts, unit: string): string {
  const whole = places.map((place) => (withUnit ? place : `${place} ${unit}`));
  const units = new Set(whole.map((place) => place.slice(place.lastIndexOf(' ') + 1)));
  if (units.size !== 1) return whole.join(', ');
  return `${whole.map((place) => place.slice(0, place.lastIndexOf(' '))).join(', ')} ${[...units][0]}`;
}
