/** The path and SHA-256 of one file of an archive. */
export interface HashedFile {
  readonly path: string;
  readonly sha256: string;
}

/**
 * What the fingerprint of some data is the SHA-256 of: a line for every file, in order of their paths. It does not hang on when the archive
 * was written, nor on how it was packed.
 *
 * @example
 * fingerprintText([{ path: 'b.json', sha256: '02' }, { path: 'a.json', sha256: '01' }]) // 'a.json 01\nb.json 02\n'
 */
export const fingerprintText = (files: readonly HashedFile[]): string =>
  files
    .map(({ path, sha256 }) => `${path} ${sha256}\n`)
    .sort()
    .join('');
