import type { MachineFamily } from '@isometra/core';

/** Kinds of machine. Kept apart so that the list of machines is drawn before the metrology is loaded. */
export const MACHINE_KINDS = [
  { value: 'engine-lathe', label: 'engine lathe' },
  { value: 'bench-lathe', label: 'light bench lathe' },
  { value: 'turning-centre', label: 'turning centre' },
  { value: 'turret-mill', label: 'turret mill' },
  { value: 'column-mill', label: 'column mill' },
  { value: 'machining-centre', label: 'machining centre' },
] as const;

/** What a lathe's checks can be asked of: the family name used in the catalogue. */
export function machineFamily(kind: string): MachineFamily {
  if (kind.endsWith('lathe')) return 'lathe';
  return kind === 'turning-centre' ? 'turning-centre' : 'mill';
}
