#!/usr/bin/env node
// Command line over the core: solve sheets, plan moves, read prints. See docs/sheets.md.
import { readFile } from 'node:fs/promises';
import { text } from 'node:stream/consumers';
import { ensureCore } from '../tools/build.mjs';

const USAGE = 'usage: isometra solve FILE… | isometra move FILE… | isometra print PHOTO …   (- reads standard input)';

const [command, ...files] = process.argv.slice(2);
if (command === '--help' || command === 'help') {
  console.log(USAGE);
} else if (command === 'print') {
  await ensureCore();
  const { printCommand } = await import('./print.mjs');
  await printCommand(files, refuse);
} else if ((command !== 'solve' && command !== 'move') || files.length === 0) {
  refuse([
    {
      path: '',
      message: command === 'solve' || command === 'move' ? 'no file given' : `"${command ?? ''}" is not a command`,
      example: USAGE,
    },
  ]);
} else {
  await ensureCore();
  await run(command, files);
}

async function run(command, files) {
  const { solve, planMove, FaultError } = await import('@isometra/core');
  const [work, key] = command === 'solve' ? [solve, 'finding'] : [planMove, 'plan'];
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
