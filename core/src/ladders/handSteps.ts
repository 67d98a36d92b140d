import type { MachineFamily, MachineFeature } from '../checks/define.js';
import { CHECKS } from '../checks/registry.js';

/** A rung without readings: done by hand and eye, at one end of the ladder. Source: docs/methods/ladders.md. */
export interface HandStep {
  readonly id: 'clean' | 'proof-cut';
  readonly title: string;
  readonly question: string;
  /** Before the first rung that is measured, or after the last. */
  readonly place: 'first' | 'last';
  /** Why it is the next thing to do. */
  readonly why: string;
  /** What is done, one after the other. */
  readonly points: readonly string[];
  readonly cautions: readonly string[];
  /** What to write down: label and example of the note. */
  readonly note: { readonly label: string; readonly example: string };
  /** Whether a move makes it worth nothing. */
  readonly upset: boolean;
  /** The check that measures what is made here. */
  readonly check?: string;
  /** It is judged from the sizes of two pads, both ways round. */
  readonly sizes?: true;
  /** What a machine must have for it. */
  readonly needs?: readonly MachineFeature[];
}

const CLEAN: HandStep = {
  id: 'clean',
  title: 'Clean and inspect',
  question: 'Is there anything between the parts that is not metal?',
  place: 'first',
  why: 'Nothing has been measured yet. A chip or a burr under a part reads as an error of the machine.',
  points: [
    'Isolated and locked out; chuck, guards and attachments removed as far as needed.',
    'Ways, tapers, centres and joint faces wiped, burrs stoned off.',
    'Cracks, scoring and the ridges of wear looked for, felt with a fingernail and written down.',
    'Every bolt that holds a casting tried; every foot bears.',
    'Locks, gibs and clamps work; oil reaches every way and bearing.',
    'The machine, the bars and the instruments have stood in the same room since yesterday.',
  ],
  cautions: [
    'Isolate and lock out the machine before hands go inside.',
    'A board on the ways before a chuck comes off; chucks are lifted with rated gear.',
    'Solvents and iron dust: gloves, eyes, air. Edges of worn ways cut.',
  ],
  note: { label: 'What was found', example: 'ridge of wear near the chuck, scored for 200 mm' },
  upset: false,
};

const PROOF: HandStep = {
  id: 'proof-cut',
  title: 'Proof cut',
  question: 'Does it turn parallel, whichever way round the bar is put?',
  place: 'last',
  why: 'Every check is in. A cut between centres, end for end, is the proof.',
  points: [
    'Run it warm first, by its builder’s manual; headstock and bar at the temperature of work.',
    'Turn two pads on a stout bar between centres in one setting of the tool, as far apart as the work will be.',
    'Measure both pads at the same temperature.',
    'Turn the bar end for end, take a last light cut over both pads and measure again.',
  ],
  cautions: [
    'No indicator, bar or key is left in the machine: look before the spindle is powered.',
    'Guards on, chip and eye protection; feed override at minimum for the first approach.',
  ],
  note: { label: 'How it was cut', example: 'bar of 40 mm, dead centre, 0.1 mm a cut' },
  upset: true,
  sizes: true,
  needs: ['tailstock'],
  check: [...CHECKS.values()].find((check) => check.proves)?.id,
};

/** What is done by hand at the ends of each kind of machine's ladder. */
export const HAND_STEPS: Readonly<Record<MachineFamily, readonly HandStep[]>> = {
  lathe: [CLEAN, PROOF],
  mill: [CLEAN],
  'turning-centre': [CLEAN, PROOF],
};
