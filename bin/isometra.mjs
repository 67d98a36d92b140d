#!/usr/bin/env node
// Command line over the core: solve sheets, plan moves, tell histories, plan jobs, read prints, describe files; and archives of a shop that
// runs: export, import, verify. See docs/sheets.md and docs/archives.md.
import { readFile } from 'node:fs/promises';
import { text } from 'node:stream/consumers';
import { ensureCore, ensureServer, ensureWork } from '../tools/build.mjs';

const USAGE =
  'usage: isometra solve FILE… | isometra move [--steps] FILE… | isometra history FILE… | isometra plan FILE… | isometra print PHOTO … | isometra describe [CHECK|MOVE|MACHINE] | isometra export FILE.zip [--machine NUMBER] [--survey ID] [--url ADDRESS] | isometra import FILE.zip [--conflicts ours|theirs|ask] [--by INITIALS] [--url ADDRESS] | isometra verify [REPORT.pdf] ARCHIVE.zip   (- reads standard input)';

/** What answers a file, under which name, and what has to be built for it. */
const COMMANDS = {
  solve: { key: 'finding', ensure: ensureCore, work: async () => (await import('@isometra/core')).solve },
  move: { key: 'plan', ensure: ensureCore, work: async () => (await import('@isometra/core'))[withSteps ? 'planWithSteps' : 'planMove'] },
  plan: { key: 'schedule', ensure: ensureWork, work: async () => (await import('@isometra/work')).planJob },
  history: { key: 'story', ensure: ensureWork, work: async () => (await import('@isometra/work')).tellStory },
};

const [command, ...told] = process.argv.slice(2);
const withSteps = command === 'move' && told.includes('--steps');
const files = withSteps ? told.filter((word) => word !== '--steps') : told;
const known = Object.hasOwn(COMMANDS, command ?? '') ? COMMANDS[command] : undefined;
if (command === '--help' || command === 'help') {
  console.log(USAGE);
} else if (command === 'describe') {
  await ensureWork();
  const { describeCommand } = await import('./describe.mjs');
  await describeCommand(files, refuse);
} else if (['export', 'import', 'verify'].includes(command)) {
  ensureServer();
  const { archiveCommands } = await import('./archive.mjs');
  await archiveCommands[command](files, refuse);
} else if (command === 'print') {
  await ensureCore();
  const { printCommand } = await import('./print.mjs');
  await printCommand(files, refuse);
} else if (!known || files.length === 0) {
  refuse([{ path: '', message: known ? 'no file given' : `"${command ?? ''}" is not a command`, example: USAGE }]);
} else {
  await known.ensure();
  await run(known, files);
}

async function run({ key, work: load }, files) {
  const [work, { FaultError }] = [await load(), await import('@isometra/core')];
  const several = files.length > 1;
  for (const file of files) {
    const answer = await answerFor(file, work, key, FaultError);
    if (several) console.log(JSON.stringify({ file, ...answer }));
    else if (answer.errors) refuse(answer.errors);
    else console.log(JSON.stringify(answer[key], null, 2));
    if (answer.errors) process.exitCode = 2;
  }
}

async function answerFor(file, work, key, FaultError) {
  let source;
  try {
    source = file === '-' ? await text(process.stdin) : await readFile(file, 'utf8');
  } catch (error) {
    return { errors: [{ path: '', message: `cannot read ${file}: ${error.code ?? error.message}`, example: 'sheet.json' }] };
  }
  let raw;
  try {
    raw = JSON.parse(source.replace(/^\uFEFF/, ''));
  } catch (error) {
    return { errors: [{ path: '', message: `is not JSON: ${error.message}`, example: '{ "format": "isometra-sheet/1", … }' }] };
  }
  try {
    return { [key]: work(raw) };
  } catch (error) {
    if (error instanceof FaultError) return { errors: error.faults };
    throw error;
  }
}

function refuse(errors) {
  console.error(JSON.stringify({ errors }));
  process.exitCode = 2;
}
