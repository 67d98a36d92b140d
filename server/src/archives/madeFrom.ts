import { FaultError } from '@isometra/core';
import { fingerprintText, surveyPaths } from '@isometra/work';
import { sha256 } from './files.js';
import { kindOf, type OpenArchive } from './reading.js';
import { verifyArchive } from './verifying.js';

/** What a report says of what it was made from. It stands in its properties, as text. */
export interface Stamp {
  readonly survey: string;
  readonly fingerprint: string;
}

const STAMP = /isometra-survey ([0-9a-f-]{36}) isometra-data ([0-9a-f]{64})/;

/** How a stamp stands in the properties of a report. */
export const stampText = ({ survey, fingerprint }: Stamp): string => `isometra-survey ${survey} isometra-data ${fingerprint}`;

/** The stamp of a report. @throws FaultError for what is no report. */
export function stampOf(pdf: Buffer): Stamp {
  const [, survey, fingerprint] = STAMP.exec(pdf.toString('latin1')) ?? [];
  if (pdf.subarray(0, 5).toString('latin1') !== '%PDF-')
    throw new FaultError([{ path: 'report', message: 'is not a PDF', example: 'a report that Isometra made' }]);
  if (!survey)
    throw new FaultError([
      { path: 'report', message: 'says nothing of the data it was made from', example: 'a report that Isometra made' },
    ]);
  return { survey, fingerprint };
}

/** Whether a report was made from what an archive holds. */
export interface Made {
  readonly made: boolean;
  readonly survey: string;
  /** What the report says, and what the archive comes to; null where the survey is not in it. */
  readonly report: string;
  readonly archive: string | null;
}

/** The photographs that lie beside JSON files. */
function withPhotographs(archive: OpenArchive, paths: readonly string[]): string[] {
  const all = archive.paths().filter((path) => kindOf(path) === 'photo');
  const folders = new Set(paths.map((path) => path.replace(/\.json$/, '')));
  const beside = (path: string): string => (path.startsWith('kit/') ? path.replace(/\/[^/]*$/, '') : path.replace(/\.\w+$/, ''));
  return [...paths, ...all.filter((path) => folders.has(beside(path)))];
}

/** The fingerprint that an archive of one survey would have, from a larger one that holds it. */
async function fingerprintWithin(archive: OpenArchive, surveyId: string): Promise<string | null> {
  const { scope, files } = archive.manifest;
  if (scope.of === 'survey' && scope.id === surveyId) return archive.fingerprint;
  const texts = [];
  for (const path of archive.paths()) if (kindOf(path) !== 'photo') texts.push({ path, text: (await archive.content(path)).text });
  const paths = surveyPaths(texts, surveyId);
  if (!paths) return null;
  const wanted = new Set(withPhotographs(archive, paths));
  return sha256(fingerprintText(files.filter(({ path }) => wanted.has(path))));
}

/**
 * Whether a report was made from just what an archive holds: of its survey, or of more. Every file of the archive is held against its
 * SHA-256 first.
 *
 * @throws FaultError for an archive that is not whole, and for what is no report.
 */
export async function madeFrom(pdf: Buffer, archive: OpenArchive): Promise<Made> {
  const { survey, fingerprint } = stampOf(pdf);
  await verifyArchive(archive);
  const own = await fingerprintWithin(archive, survey);
  return { made: own === fingerprint, survey, report: fingerprint, archive: own };
}
