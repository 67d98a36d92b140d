/** Letters as bytes; a camera writes plain ones. */
const bytesOf = (letters: string): readonly number[] => [...letters].map((letter) => letter.charCodeAt(0));

/** EXIF with nothing but the way the camera was held: big-endian, one entry, tag 0x0112. */
const exifOf = (orientation: number): readonly number[] => [
  ...bytesOf('Exif'),
  ...[0, 0, 0x4d, 0x4d, 0, 42, 0, 0, 0, 8],
  ...[0, 1, 0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, orientation, 0, 0],
  ...[0, 0, 0, 0],
];

const segment = (letter: number, content: readonly number[]): readonly number[] => [0xff, letter, 0, content.length + 2, ...content];

/** A JPEG with what a camera writes into it: the way it was held, 1 to 8, and a comment, such as a place. */
export const withCameraMarks = (jpeg: Uint8Array, orientation: number, comment: string): Uint8Array =>
  Uint8Array.from([...[0xff, 0xd8], ...segment(0xe1, exifOf(orientation)), ...segment(0xfe, bytesOf(comment)), ...jpeg.slice(2)]);
