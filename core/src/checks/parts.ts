import type { MachineFeature } from './machines.js';

/** What a correction moves or works on, in the words that a job card needs. */
export interface Part {
  /** Stands after "the": "tailstock". */
  readonly name: string;
  /** What is scraped, or has shims laid to it: "faces of the base that bear on the bed". */
  readonly faces: string;
  /** What is cleaned before it is moved; its faces when left out. */
  readonly clean?: string;
  /** How it is got at before metal comes off; left out for what is worked where it stands. */
  readonly off?: string;
  /** How a joint is opened for shims. */
  readonly open?: readonly string[];
  /** What is put back over the shims; the part itself when left out. */
  readonly over?: string;
  /** What else is let go and set again with it, to be written down on the card. */
  readonly alsoSet?: { readonly label: string; readonly example: string };
  /** What holds it: "tailstock clamp". */
  readonly clamp?: string;
  /** What is made sure of before any metal goes. */
  readonly before?: string;
  /** When to stop taking metal. */
  readonly stop?: string;
  /** Its shims have the outline of the tailstock base on the machine card. */
  readonly base?: true;
  /** What a machine must have for metal to come off it. */
  readonly needs?: readonly MachineFeature[];
  /** It stands on the foot that the machine card tells of. */
  readonly foot?: true;
  /** The slide whose gib it is. */
  readonly slide?: string;
  /** It carries like things that go with it when it is moved: the stations and flats of a turret. */
  readonly carries?: {
    /** What carries them, the same for every check that reads on it. */
    readonly body: string;
    /** How it is spoken of: "the whole turret: every station goes with it". */
    readonly all: string;
    /** Every other one is read again after it: "its other stations". */
    readonly others: string;
    /** What can be moved of one of them by itself; left out where nothing can. */
    readonly alone?: Part;
  };
  /** What it is on linear guides: the body that stands on the trucks, and the rails these run on. */
  readonly onTrucks?: { readonly body: string; readonly along: 'x' | 'y' };
  /** It turns about a pin when its bolts are eased: the head of a mill. */
  readonly swivels?: true;
}

/** Where a check does not say what it moves. */
export const ANY_PART: Part = { name: 'part', faces: 'faces it sits on' };

export const TAILSTOCK: Part = {
  name: 'tailstock',
  faces: 'faces of the base that bear on the bed',
  clean: 'slideway and the faces of the base',
  off: 'Lift the tailstock off and turn it over on wood.',
  open: ['Slide the tailstock to where it can be lifted clear, and take the weight.', 'Part the top from the base.'],
  over: 'top',
  clamp: 'tailstock clamp',
  before: 'Measure again at a second place along the bed before any metal goes: wear may make it high here and low there.',
  stop: 'Stop one pass short. Wear only takes it down, so a little high is right and low is not.',
  base: true,
};

export const WAY: Part = {
  name: 'way',
  faces: 'way, where the chart shows it high',
  before: 'Mark the high places on the way itself, by the chart. Read the level again the next day: a warm bed is bent.',
  stop: 'Print with the straightedge after every pass and read again after every third. Stop one pass short; the last one is for contact.',
};

export const SEAT: Part = {
  name: 'casting',
  faces: 'seat, relieved in the middle and bearing near the bolts',
  off: 'Lift the casting off and block it where it is worked on.',
  before: 'Find the corners that rock with a leaf of feeler: a chip or a burr rocks too.',
  stop: 'Stop when it no longer rocks. Geometry read before that was not true.',
};

export const HEADSTOCK: Part = {
  name: 'headstock',
  faces: 'faces it sits on',
  off: 'Slack the belt, lift the headstock off and block it where it is worked on.',
  before: 'Be sure of the axis before any metal goes: bar turned half round, droop taken out, play looked at, the seat does not rock.',
  stop: 'Stop one pass short, lay it back, and read again.',
};

export const SADDLE: Part = {
  name: 'saddle',
  faces: 'cross ways of the saddle',
  off: 'Take the cross slide off, and the saddle too if it is worked on the bench.',
  before: 'Where the headstock is to be moved still, wait: facing hollow is the axis less the saddle, and one may cure the other.',
  stop: 'Stop one pass short and face a disc again. Hollow is right, crowned is not.',
};

export const MILL_SADDLE: Part = {
  name: 'saddle',
  needs: ['slideways'],
  faces: 'guiding flank of the saddle',
  off: 'Take the table off, and the saddle where it is worked on the bench.',
  before: 'Take the play up at the gibs first: slack looks like an angle.',
};

export const SLOT: Part = {
  name: 'slot',
  needs: ['slideways'],
  faces: 'working side of the slot',
  before: 'Stone the burrs off the slot and read again.',
};

export const DOVETAIL: Part = {
  name: 'dovetail',
  faces: 'flank of the dovetail, where it is widest',
  before: 'Measure over the pins again at the widest place: a chip in the corner is width.',
  stop: 'Metal is taken square to the flank, less than the pins say. Stop one pass short.',
};

export const COLUMN: Part = {
  name: 'column',
  faces: 'joint of the column',
  off: 'Take off the head and everything mounted on the column, and lift the column with rated gear.',
  open: ['Take the weight of the column with rated gear.', 'Loosen its bolts and open the joint on the side that is to come up.'],
  clamp: 'bolts of the column',
  foot: true,
};

/** A table as it runs along one of its axes: on linear guides along y it stands on the trucks of the saddle. */
export const tableAlong = (along: 'x' | 'y'): Part => ({
  name: 'table',
  needs: ['slideways'],
  onTrucks: { body: along === 'x' ? 'table' : 'saddle', along },
  faces: 'ways under the table',
  off: 'Take the table off its ways.',
  before: 'Take the play up at the gibs first: a table that rocks reads as a table that slopes.',
});

const ON_TURRET = { body: 'turret', all: 'the whole turret: every station goes with it' } as const;

export const TURRET: Part = {
  name: 'turret',
  faces: 'joint of the turret',
  open: ['Take the weight of the turret with rated gear.', 'Loosen its bolts and open the joint on the side that is to come out.'],
  clamp: 'bolts of the turret',
  carries: { ...ON_TURRET, others: 'its pockets' },
};

const OWN_STATION = 'Each plate goes back on its own station, by its number.';
const AGAINST_STOP = 'Housing, belt and drive shaft go back against their stop.';
const PLATE: Part = {
  name: 'plate of this station alone',
  faces: 'joint of the plate',
  clamp: 'bolts of the plate',
  before: OWN_STATION,
};
export const POCKET: Part = {
  name: 'turret',
  faces: 'joint of the turret',
  clamp: 'bolts of the turret',
  before: OWN_STATION,
  stop: AGAINST_STOP,
  carries: { ...ON_TURRET, others: 'its flat and every other station', alone: PLATE },
};
export const BUSH: Part = { name: 'guide bush', faces: 'joint of its housing', clamp: 'bolts of the housing', stop: AGAINST_STOP };
export const SUB: Part = {
  name: 'sub-spindle',
  faces: 'joint of the sub-spindle',
  clamp: 'bolts of the sub-spindle',
  stop: AGAINST_STOP,
  alsoSet: { label: 'Stops, belt and drive as they were left', example: 'stop 0.05 mm clear, belt tight, drive coupled' },
};

export const HEAD: Part = { name: 'head', faces: 'joint of the head', clamp: 'bolts of the head', swivels: true };

export const VICE: Part = { name: 'vice', faces: 'foot of the vice', clamp: 'bolts of the vice' };
