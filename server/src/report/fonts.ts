import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

const require = createRequire(import.meta.url);

const FAMILIES = {
  barlow: '@fontsource/barlow/package.json',
  'barlow-semi-condensed': '@fontsource/barlow-semi-condensed/package.json',
} as const;

/** A file of one of the application's own fonts. */
function fontFile(family: 'barlow' | 'barlow-semi-condensed', part: 'latin' | 'latin-ext', weight: 400 | 600): Buffer {
  const folder = dirname(require.resolve(FAMILIES[family]));
  return readFileSync(join(folder, 'files', `${family}-${part}-${weight}-normal.woff`));
}

/** The application's own fonts, by the names under which the printer uses them. `more` holds letters that are rarer in English. */
const fonts = (): Readonly<Record<string, Buffer>> => ({
  text: fontFile('barlow', 'latin', 400),
  bold: fontFile('barlow', 'latin', 600),
  head: fontFile('barlow-semi-condensed', 'latin', 600),
  'text-more': fontFile('barlow', 'latin-ext', 400),
  'bold-more': fontFile('barlow', 'latin-ext', 600),
  'head-more': fontFile('barlow-semi-condensed', 'latin-ext', 600),
});

let read: ReturnType<typeof fonts> | undefined;

/** Give a document the application's own fonts. They are read from disk once. */
export function registerFonts(doc: PDFKit.PDFDocument): void {
  for (const [name, bytes] of Object.entries((read ??= fonts()))) doc.registerFont(name, bytes as never);
}
