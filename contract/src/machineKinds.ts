import type { MachineFamily } from '@isometra/core';

interface MachineKind {
  readonly value: string;
  readonly label: string;
  /** Whose ladder it has. */
  readonly family: MachineFamily;
  /** The limit sheet that suits it before anything else is chosen. */
  readonly limits: 'general' | 'light-bench';
}

/** Kinds of machine. Kept apart so that the list of machines is drawn before the metrology is loaded. */
export const MACHINE_KINDS: readonly MachineKind[] = [
  { value: 'engine-lathe', label: 'engine lathe', family: 'lathe', limits: 'general' },
  { value: 'bench-lathe', label: 'light bench lathe', family: 'lathe', limits: 'light-bench' },
  { value: 'turning-centre', label: 'turning centre', family: 'turning-centre', limits: 'general' },
  { value: 'turret-mill', label: 'turret mill', family: 'mill', limits: 'general' },
  { value: 'column-mill', label: 'column mill', family: 'mill', limits: 'general' },
  { value: 'machining-centre', label: 'machining centre', family: 'mill', limits: 'general' },
];

/** What a machine's checks can be asked of: the family name used in the catalogue. */
export function machineFamily(kind: string): MachineFamily {
  return MACHINE_KINDS.find(({ value }) => value === kind)?.family ?? 'mill';
}

/** The sheet that suits a kind of machine before anything else is chosen. */
export const usualSheet = (kind: string): MachineKind['limits'] => MACHINE_KINDS.find(({ value }) => value === kind)?.limits ?? 'general';
