import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { convert } from 'fontverter';

const require = createRequire(import.meta.url);

const FAMILIES = {
  barlow: '@fontsource/barlow/package.json',
  'barlow-semi-condensed': '@fontsource/barlow-semi-condensed/package.json',
} as const;

/** A file of one of the application's own fonts, unpacked: the printer would unpack it again for every letter. */
async function fontFile(family: keyof typeof FAMILIES, part: 'latin' | 'latin-ext', weight: 400 | 600): Promise<Buffer> {
  const folder = dirname(require.resolve(FAMILIES[family]));
  return convert(await readFile(join(folder, 'files', `${family}-${part}-${weight}-normal.woff`)), 'sfnt');
}

/** The application's own fonts, by the names under which the printer uses them. */
export type Fonts = Readonly<Record<string, Buffer>>;

/** `more` holds letters that are rarer in English. */
const FONTS = {
  text: ['barlow', 'latin', 400],
  bold: ['barlow', 'latin', 600],
  head: ['barlow-semi-condensed', 'latin', 600],
  'text-more': ['barlow', 'latin-ext', 400],
  'bold-more': ['barlow', 'latin-ext', 600],
  'head-more': ['barlow-semi-condensed', 'latin-ext', 600],
} as const;

let read: Promise<Fonts> | undefined;

/** The fonts, read from disk once. */
export const fonts = (): Promise<Fonts> =>
  (read ??= Promise.all(
    Object.entries(FONTS).map(async ([name, [family, part, weight]]) => [name, await fontFile(family, part, weight)] as const),
  ).then(Object.fromEntries));

/** Give a document the application's own fonts. */
export function registerFonts(doc: PDFKit.PDFDocument, all: Fonts): void {
  for (const [name, bytes] of Object.entries(all)) doc.registerFont(name, bytes as never);
}
