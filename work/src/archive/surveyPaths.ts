import { byName, Mentions } from './mentions.js';
import { remarksOf } from './remarksOf.js';

/** A JSON file of an archive. */
export interface ArchivedText {
  readonly path: string;
  readonly text: string;
}

type Content = Readonly<Record<string, unknown>>;

/** Where the things lie that are in an archive only because others mention them. */
const MENTIONED = /^(kit|limits|people|pictures)\/[^/]+\.json$/;

/** The names under which such a thing is mentioned. */
function namesOf(path: string, content: Content): string[] {
  if (path.startsWith('people/')) return [content['initials'] as string];
  if (path.startsWith('pictures/')) return [content['hash'] as string];
  const versions = (content['versions'] ?? []) as readonly { readonly id: string }[];
  const called = path.startsWith('kit/') ? [content['name'] as string] : [];
  return [content['id'] as string, ...called, ...versions.map(({ id }) => id)];
}

/**
 * Which JSON files of a larger archive an archive of one survey holds: the survey, its machine, rounds, moves, notes on them, its part of
 * the logbook, and what any of these mentions.
 *
 * @param files all JSON files of the archive but its manifest.
 * @returns their paths; undefined where the survey is not in it.
 */
export function surveyPaths(files: readonly ArchivedText[], surveyId: string): string[] | undefined {
  const all = files.map(({ path, text }) => ({ path, text, content: JSON.parse(text) as Content }));
  const survey = all.find(({ path }) => path === `surveys/${surveyId}.json`);
  if (!survey) return undefined;
  const inFolder = (folder: string, key: string, wanted: (value: string) => boolean) =>
    all.filter(({ path, content }) => path.startsWith(`${folder}/`) && wanted(content[key] as string));
  const { machineId } = survey.content;
  const rounds = inFolder('rounds', 'surveyId', (id) => id === surveyId);
  const roundIds = new Set(rounds.map(({ content }) => content['id'] as string));
  const remarks = inFolder('remarks', 'machineId', (id) => id === machineId).map((file) => ({
    ...file,
    ...{ id: file.content['id'] as string, supersedes: file.content['supersedes'] as string | null },
    written: file.path,
    path: file.content['path'] as string,
  }));
  const wanted = [
    survey,
    ...inFolder('machines', 'id', (id) => id === machineId),
    ...rounds,
    ...inFolder('moves', 'roundId', (id) => roundIds.has(id)),
    ...inFolder('log', 'surveyId', (id) => id === surveyId),
    ...remarksOf(remarks, roundIds).map(({ written, text }) => ({ path: written, text })),
  ];
  const others = new Map(all.filter(({ path }) => MENTIONED.test(path)).map((file) => [file.path, file]));
  const mentions = new Mentions(
    byName([...others.values()].flatMap(({ path, content }) => namesOf(path, content).map((name) => [name, path] as const))),
  );
  const paths = wanted.map(({ path }) => path);
  for (const { text } of wanted) mentions.read(text);
  for (let next = mentions.next(); next.length; next = mentions.next())
    for (const path of next) {
      paths.push(path);
      mentions.read(others.get(path)?.text ?? '');
    }
  return paths;
}
