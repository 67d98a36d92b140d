import type { MachineFamily, MachineFeature } from '@isometra/core';

interface MachineKind {
  readonly value: string;
  readonly label: string;
  /** Whose ladder it has. */
  readonly family: MachineFamily;
  readonly has: readonly MachineFeature[];
  /** What is looked at again after a move, before anything else is chosen: linear guides from the top, everything else what it upsets. */
  readonly school: 'cascade' | 'top';
  /** The limit sheet that suits it before anything else is chosen. */
  readonly limits: 'general' | 'light-bench';
}

const SCRAPED: readonly MachineFeature[] = ['slideways', 'dovetail'];

/** What all turning centres are, and what this one has beside its turret. */
const TURNING = (has: readonly MachineFeature[]): Omit<MachineKind, 'value' | 'label'> => ({
  ...{ family: 'turning-centre', has: ['slideways', 'turret', ...has], school: 'cascade', limits: 'general' },
});

/** Kinds of machine. Kept apart so that the list of machines is drawn before the metrology is loaded. */
export const MACHINE_KINDS: readonly MachineKind[] = [
  { value: 'engine-lathe', label: 'engine lathe', family: 'lathe', has: [...SCRAPED, 'tailstock'], school: 'cascade', limits: 'general' },
  {
    value: 'bench-lathe',
    label: 'light bench lathe',
    family: 'lathe',
    has: [...SCRAPED, 'tailstock'],
    school: 'cascade',
    limits: 'light-bench',
  },
  { value: 'turning-centre', label: 'turning centre with sub-spindle and guide bush', ...TURNING(['sub-spindle', 'guide-bush']) },
  { value: 'turning-centre-sub', label: 'turning centre with sub-spindle', ...TURNING(['sub-spindle']) },
  { value: 'turning-centre-bush', label: 'turning centre with guide bush', ...TURNING(['guide-bush']) },
  { value: 'turning-centre-both', label: 'turning centre with sub-spindle and tailstock', ...TURNING(['sub-spindle', 'tailstock']) },
  { value: 'turning-centre-tailstock', label: 'turning centre with tailstock', ...TURNING(['tailstock']) },
  { value: 'turning-centre-plain', label: 'turning centre with a turret alone', ...TURNING([]) },
  {
    value: 'turret-mill',
    label: 'turret mill',
    family: 'mill',
    has: [...SCRAPED, 'knee', 'swivel-head'],
    school: 'cascade',
    limits: 'general',
  },
  { value: 'knee-mill', label: 'knee mill', family: 'mill', has: [...SCRAPED, 'knee'], school: 'cascade', limits: 'general' },
  { value: 'column-mill', label: 'column mill', family: 'mill', has: [...SCRAPED, 'swivel-head'], school: 'cascade', limits: 'general' },
  {
    value: 'machining-centre',
    label: 'machining centre on linear guides',
    family: 'mill',
    has: ['trucks'],
    school: 'top',
    limits: 'general',
  },
];

const kindOf = (kind: string): MachineKind | undefined => MACHINE_KINDS.find(({ value }) => value === kind);

/** What a machine's checks can be asked of: the family name used in the catalogue. */
export const machineFamily = (kind: string): MachineFamily => kindOf(kind)?.family ?? 'mill';

/** The sheet that suits a kind of machine before anything else is chosen. */
export const usualSheet = (kind: string): MachineKind['limits'] => kindOf(kind)?.limits ?? 'general';

/** The school that a survey of such a machine begins with. */
export const usualSchool = (kind: string): MachineKind['school'] => kindOf(kind)?.school ?? 'cascade';

/** What a machine of this kind has. */
export const featuresOf = (kind: string): readonly MachineFeature[] => kindOf(kind)?.has ?? [];

/** Whether a machine of this kind has all that is needed. An unknown kind is taken for one that has everything. */
export const hasAll = (kind: string, needs: readonly MachineFeature[] = []): boolean =>
  needs.every((need) => kindOf(kind)?.has.includes(need) ?? true);

/** What asks for families of machines, and for what they must have: a check, a field of the card. */
interface Asks {
  readonly machines?: readonly MachineFamily[];
  readonly needs?: readonly MachineFeature[];
}

/** Whether something is for this kind of machine; for every one where it asks for nothing. */
export const isFor = (kind: string, { machines, needs }: Asks): boolean =>
  (machines?.includes(machineFamily(kind)) ?? true) && hasAll(kind, needs);
