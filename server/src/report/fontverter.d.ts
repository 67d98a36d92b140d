declare module 'fontverter' {
  /** A font in another container: `sfnt` is what a TrueType or OpenType file holds. */
  export function convert(font: Buffer, to: 'sfnt' | 'woff' | 'woff2'): Promise<Buffer>;
}
