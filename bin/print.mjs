// isometra print PHOTO: what a photograph of a blued face shows. See docs/sheets.md.
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { buffer } from 'node:stream/consumers';
import { parseArgs } from 'node:util';

const USAGE = 'isometra print PHOTO [--marks x1,y1,x2,y2 --apart MM | --corners x1,y1,…,x4,y4 --size W,H] [--ignore x,y,w,h]…';
const EXAMPLES = {
  marks: '--marks 120,80,1980,92',
  apart: '--apart 100',
  corners: '--corners 40,30,1900,44,1885,1390,52,1378',
  size: '--size 200,150',
  ignore: '--ignore 900,0,60,1400',
};

/** A bare number, or a length as people write it: mm where nothing is said. */
const UNITS = { '': 1, px: 1, mm: 1, cm: 10, in: 25.4, inch: 25.4 };
function measure(text) {
  const [, number, unit] = /^(-?\d+(?:\.\d+)?)\s*([a-z]*)$/.exec(text) ?? [];
  return Number(number ?? NaN) * (UNITS[unit] ?? NaN);
}

/** Numbers of an option, as many as it has; what is wrong is put with the errors. */
function numbers(text, option, count, errors) {
  const parts = String(text)
    .trim()
    .split(/\s*[,;]\s*|\s+(?=[-\d])/);
  const values = parts.map(measure);
  if (parts.length === count && values.every(Number.isFinite)) return values;
  errors.push({
    path: option,
    message: `must be ${count === 1 ? 'a number' : `${count} numbers`}, not "${text}"`,
    example: EXAMPLES[option],
  });
  return undefined;
}

const spots = (values) => Array.from({ length: values.length / 2 }, (_, i) => ({ x: values[2 * i], y: values[2 * i + 1] }));

/** The scale of the photograph as the options tell it; undefined where they tell none. */
function scaleOf({ marks, apart, corners, size }, errors) {
  const both = (one, other, names) => {
    if ((one === undefined) !== (other === undefined))
      errors.push({
        path: one === undefined ? names[0] : names[1],
        message: `is missing: ${names[0]} and ${names[1]} go together`,
        example: EXAMPLES[one === undefined ? names[0] : names[1]],
      });
    return one !== undefined && other !== undefined;
  };
  const byMarks = both(marks, apart, ['marks', 'apart']);
  const byCorners = both(corners, size, ['corners', 'size']);
  if (byMarks && byCorners) errors.push({ path: 'marks', message: 'give either marks or corners, not both', example: EXAMPLES.corners });
  if (byMarks) {
    const [places, [length] = []] = [numbers(marks, 'marks', 4, errors), numbers(apart, 'apart', 1, errors)];
    return places && length !== undefined ? { marks: spots(places), apart: length } : undefined;
  }
  if (!byCorners) return undefined;
  const [places, measures] = [numbers(corners, 'corners', 8, errors), numbers(size, 'size', 2, errors)];
  return places && measures ? { corners: spots(places), size: { width: measures[0], height: measures[1] } } : undefined;
}

function asked(args) {
  const one = { type: 'string' };
  const { values, positionals } = parseArgs({
    args: args.flatMap(split),
    options: { marks: one, apart: one, corners: one, size: one, ignore: { type: 'string', multiple: true } },
    allowPositionals: true,
  });
  return { values, positionals };
}

/** A value that begins with a minus is one all the same: places may lie outside the photograph. */
const split = (arg, i, all) =>
  /^-\d/.test(arg) && all[i - 1]?.startsWith('--')
    ? []
    : /^--\w+$/.test(arg) && /^-\d/.test(all[i + 1] ?? '')
      ? [`${arg}=${all[i + 1]}`]
      : [arg];

export async function printCommand(args, refuse) {
  const errors = [];
  let options;
  try {
    options = asked(args);
  } catch (error) {
    return refuse([{ path: '', message: error.message.split('. ')[0], example: USAGE }]);
  }
  const { values, positionals } = options;
  if (positionals.length !== 1)
    errors.push({
      path: '',
      message: positionals.length ? `one photograph at a time, not ${positionals.length}` : 'no photograph given',
      example: USAGE,
    });
  const scale = scaleOf(values, errors);
  const ignore = (values.ignore ?? []).flatMap((text) => {
    const [x, y, width, height] = numbers(text, 'ignore', 4, errors) ?? [];
    return x === undefined ? [] : [{ x, y, width, height }];
  });
  if (errors.length) return refuse(errors);
  const { FaultError, readPrint } = await import('@isometra/core/print');
  const { decodePicture, decodersFrom } = await import('@isometra/core/print-files');
  try {
    const decoders = decodersFrom((file) => readFile(fileURLToPath(import.meta.resolve(file))));
    const print = readPrint(await decodePicture(await bytesOf(positionals[0]), decoders), { scale, ignore });
    const { spots, spotsPerSquare, bearingShare, largestBare, area } = print;
    console.log(JSON.stringify({ format: 'isometra-print/1', spots, spotsPerSquare, bearingShare, largestBare, area }, null, 2));
    for (const { code, text } of print.notes) console.error(JSON.stringify({ note: code, text }));
  } catch (error) {
    if (error instanceof FaultError) return refuse(error.faults);
    if (error.code) return refuse([{ path: 'photo', message: `cannot read ${positionals[0]}: ${error.code}`, example: 'print.jpg' }]);
    throw error;
  }
}

const bytesOf = async (file) => new Uint8Array(file === '-' ? await buffer(process.stdin) : await readFile(file));
