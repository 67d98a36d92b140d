/**
 * Where a doubt comes from. Codes are stable; the words beside them are for people.
 * Source: docs/methods/uncertainty.md.
 */
export const DOUBTS = {
  dial: 'reading the dial',
  repeating: 'repeating a reading',
  accuracy: 'instrument accuracy',
  wandering: 'wandering during the round',
  'setting-up': 'setting up again',
  'bar-straightness': 'bar straightness',
  'bar-diameter': 'diameter of the bar',
  'bar-droop': 'droop of the bar',
  'stylus-push': 'push of the stylus',
  'holder-droop': 'droop of the holder',
  'live-centre': 'live centre runout',
  'head-centre': 'headstock centre runout',
  'spindle-axis': 'spindle axis',
  'bed-twist': 'bed twist',
  square: 'the square',
  leaves: 'feeler leaves',
  temperature: 'temperature of the pads',
  'high-place': 'where the high place lies',
  shape: 'shape of what was read',
  'level-zero': 'zero error of the level',
} as const;

export type DoubtCode = keyof typeof DOUBTS;
