/** The colours of the product: the only place where they are written down. Tokens for everything that is drawn in the page. */
export const PALETTE = {
  ground: '#EFF1EE',
  panel: '#F8F9F6',
  paper: '#FFFFFF',
  sunk: '#E3E7E3',
  ink: '#1E252B',
  soft: '#4A555B',
  line: '#B9C0BD',
  edge: '#7E8A90',
  faint: '#6C767B',
  /** Iron on a drawing, and what is thin on it. */
  iron: '#CFD6D6',
  thin: '#9AA5A9',
  dark: '#3A444B',
  /** What was measured. */
  blue: '#1B4C8C',
  wash: '#DBE5F1',
  glow: '#8FB7EC',
  /** The one next thing. */
  yellow: '#F0BE1E',
  /** Out of limit. */
  red: '#C23B16',
  blush: '#F6E3DC',
} as const;
