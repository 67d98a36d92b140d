import { slotsWhere } from '../../instruments/slots.js';
import * as z from 'zod';
import { choice, optionalMeasure } from '../../input/fields.js';
import { ISOLATE } from '../cautions.js';
import { defineCheck, type CheckInput, type Estimates, type Note } from '../define.js';
import { largestEstimate, type Estimate, type Form } from '../estimate.js';
import { tooFew } from '../notes.js';
import { readWithLeaves } from '../leaves.js';
import { SEAT } from '../parts.js';
import { sizeUpTo } from '../quantities.js';

const MOST = 5;
const setup = z.strictObject({ force: optionalMeasure('force', { label: 'Push', above: 0, example: '200 N' }) });
const reading = z.strictObject({
  corner: z.string({ error: 'must name the corner' }).min(1).max(40),
  state: z.enum(['pressed', 'free', 'clamped'], { error: 'must be "pressed", "free" or "clamped"' }),
});
type State = z.output<typeof reading>['state'];

const ROCKS: Note = {
  code: 'seat-rocks',
  severity: 'serious',
  halts: true,
  text: 'The seat moves by more than a third of the limit: geometry read on this casting is not to be trusted. Bed the seat first: relieve the middle, bear near the bolts.',
};

function estimate({ slots }: CheckInput<z.output<typeof setup>, z.output<typeof reading>>): Estimates {
  const corners = [...new Set(slots.map((slot) => slot.keys.corner))];
  const values = slots.map((slot) => slot.value);
  const largest = (name: string, state: State): Estimate[] => {
    const at = (corner: string, wanted: State) => slotsWhere(slots, ({ keys }) => keys.corner === corner && keys.state === wanted);
    const perCorner = corners.flatMap((corner): { corner: string; form: Form }[] => {
      const [moved, free] = [at(corner, state), at(corner, 'free')];
      if (moved.length === 0 || free.length === 0) return [];
      const form = [...moved.map((i) => [i, 1 / moved.length] as const), ...free.map((i) => [i, -1 / free.length] as const)];
      return [{ corner, form }];
    });
    if (perCorner.length === 0) return [];
    const { worst, ...size } = largestEstimate(
      name,
      perCorner.map(({ form }) => form),
      values,
    );
    return [{ ...size, detail: { corner: perCorner[worst].corner } }];
  };
  const estimates = [...largest('rock', 'pressed'), ...largest('clampShift', 'clamped')];
  const rocks = estimates.some((entry) => entry.evaluate(values) > MOST / 3);
  return { estimates, notes: [...(estimates.length ? [] : [tooFew('a corner free and pressed')]), ...(rocks ? [ROCKS] : [])] };
}

const byDial = defineCheck({
  id: 'seat',
  family: 'play',
  title: 'Seat of a casting',
  question: 'Does it rock on its ways, and does clamping shift it?',
  choose: 'Before anything is planned from a casting: a rocking seat makes false geometry.',
  machines: ['lathe', 'mill', 'turning-centre'],
  needs: ['slideways'],
  setup,
  reading,
  plan: z.strictObject({}),
  conditions: z.strictObject({
    casting: choice({
      label: 'Casting',
      asked: true,
      choices: [
        { value: 'headstock', label: 'headstock' },
        { value: 'tailstock', label: 'tailstock' },
        { value: 'column', label: 'column' },
        { value: 'saddle', label: 'saddle' },
      ],
    }),
  }),
  apart: ['casting'],
  slotKeys: ['corner', 'state'],
  reads: 'indicator',
  quantities: { rock: sizeUpTo('Rock', MOST), clampShift: sizeUpTo('Shift on clamping', MOST) },
  slots: () =>
    ['front left', 'front right', 'rear left', 'rear right'].flatMap((corner) =>
      (['free', 'pressed', 'clamped'] as const).map((state) => ({ keys: { corner, state }, label: `${corner}, ${state}` })),
    ),
  estimate,
  corrections: { rock: { plus: ['scrape'], minus: ['scrape'] } },
  part: SEAT,
  picture: { drawing: 'seat-corners' },
  hangsOn: ['bed-twist', 'table-level'],
  after: ['tailstock-way-parallelism', 'way-straightness'],
  counting: 'The largest change of any corner, pressed against free.',
  cautions: [ISOLATE, 'Lift castings with rated gear, never by hand over an edge.'],
  cannotSee: ['Which face bears: blue it.'],
  advice: ['Press each corner in turn with the same force; read at the spindle nose as well.'],
});

export const seat = readWithLeaves(byDial, {
  under: 'the corner',
  label: 'Read the gap at each corner with leaves, without a dial',
});
