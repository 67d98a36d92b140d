/** What of a spindle is read for its runout. */
export const FEATURES = ['noseRadial', 'taperNear', 'taperFar', 'face', 'axialSlip', 'radial'] as const;
export type Feature = (typeof FEATURES)[number];
export const FEATURE_NAMES: Readonly<Record<Feature, string>> = {
  noseRadial: 'Nose',
  taperNear: 'Taper, at its mouth',
  taperFar: 'Taper, at the end of a bar',
  face: 'Face',
  axialSlip: 'Slip along the axis',
  radial: 'Point of the centre',
};
