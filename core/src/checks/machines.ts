/** Machines that share a ladder. */
export type MachineFamily = 'lathe' | 'mill' | 'turning-centre';

/** What a machine has beside what all of its family have: checks and fields of the card ask for it. */
export type MachineFeature =
  'slideways' | 'dovetail' | 'knee' | 'swivel-head' | 'trucks' | 'tailstock' | 'turret' | 'guide-bush' | 'sub-spindle';
