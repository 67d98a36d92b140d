/** Every kind of move that the format knows; those with arithmetic of their own are in the registry. */
export type MoveKind =
  | 'adjuster'
  | 'shim-leaves'
  | 'eccentric'
  | 'base-shims'
  | 'scrape'
  | 'step-scrape'
  | 'sine-stack'
  | 'feet'
  | 'feet-shims'
  | 'pull'
  | 'gib'
  | 'bearing-shims'
  | 'stored-offset'
  | 'supports';
