// isometra export, import and verify: what leaves a shop that runs, and what comes into it.
import { Buffer } from 'node:buffer';
import { createReadStream, createWriteStream } from 'node:fs';
import { readFile, rename, rm, stat } from 'node:fs/promises';
import { createInterface } from 'node:readline/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { randomUUID } from 'node:crypto';
import { URLSearchParams } from 'node:url';
import { parseArgs } from 'node:util';

const HERE = 'http://127.0.0.1:4780';

/** What was asked for is no good: said as every other fault is. */
class Refused extends Error {
  constructor(errors) {
    super(errors[0].message);
    this.errors = errors;
  }
}
const refused = (path, message, example) => new Refused([{ path, message, example }]);

/** Words and options of a command line. */
function read(args, known, usage) {
  const options = Object.fromEntries(known.map((name) => [name, { type: 'string' }]));
  const { values, positionals, tokens } = parseArgs({ args, options, allowPositionals: true, strict: false, tokens: true });
  for (const { kind, name, rawName, value } of tokens) {
    if (kind !== 'option') continue;
    if (!known.includes(name)) throw refused(rawName, 'is not an option of this command', usage);
    if (!value) throw refused(rawName, 'needs a value behind it', usage);
  }
  return { files: positionals, options: values };
}

function addressOf(options) {
  const url = options.url ?? HERE;
  if (!URL.canParse(url) || !/^https?:$/.test(new URL(url).protocol)) throw refused('--url', `"${url}" is not an address`, HERE);
  return url.replace(/\/+$/, '');
}

/** Ask the shop. What it answers with an error is told as an error of ours. */
async function ask(url, init) {
  let response;
  try {
    response = await fetch(url, init);
  } catch (error) {
    throw refused('--url', `no shop answers at ${new URL(url).origin}: ${error.cause?.code ?? error.message}`, 'start it with npm start');
  }
  if (response.ok) return response;
  const body = await response.json().catch(() => undefined);
  throw new Refused(body?.errors ?? [{ path: '', message: `the shop answered ${response.status}`, example: HERE }]);
}

/** How far it is, on one line, where somebody looks. */
function progress(text) {
  if (process.stderr.isTTY) process.stderr.write(`\r\x1b[K${text}`);
}

async function exportCommand(words) {
  const usage = 'isometra export FILE.zip [--machine NUMBER] [--survey ID] [--url ADDRESS]';
  const { files, options } = read(words, ['machine', 'survey', 'url'], usage);
  if (files.length !== 1) throw refused('', 'name one file to write', usage);
  const [file] = files;
  const query = new URLSearchParams(Object.entries(options).filter(([name]) => name !== 'url'));
  const response = await ask(`${addressOf(options)}/api/archive.zip?${query}`);
  const part = `${file}.part`;
  let size = 0;
  const counted = async function* (source) {
    for await (const piece of source) {
      size += piece.length;
      progress(`${(size / 1e6).toFixed(1)} MB written`);
      yield piece;
    }
  };
  try {
    await pipeline(Readable.fromWeb(response.body), counted, createWriteStream(part));
    const { OpenArchive } = await import('@isometra/server/archives');
    const archive = await OpenArchive.open(part);
    const { fingerprint } = archive;
    const { files: held, ...manifest } = archive.manifest;
    archive.close();
    await rename(part, file);
    progress('');
    console.log(JSON.stringify({ file, bytes: size, ...manifest, files: held.length, fingerprint }, null, 2));
  } catch (error) {
    await rm(part, { force: true });
    if (error.faults || error instanceof Refused) throw error;
    if (error.code?.startsWith('E')) throw refused('', `cannot write ${file}: ${error.code}`, 'a folder that is there');
    throw refused('', `the archive was not sent to its end: ${error.message}`, 'once more');
  }
}

/** A form with an archive in it, sent as it is read. */
function formOf(file, fields) {
  const boundary = `isometra-${randomUUID()}`;
  const part = (name, more, text) => `--${boundary}\r\nContent-Disposition: form-data; name="${name}"${more}\r\n\r\n${text}`;
  const body = async function* () {
    for (const [name, value] of Object.entries(fields)) yield Buffer.from(`${part(name, '', value)}\r\n`);
    yield Buffer.from(part('archive', '; filename="archive.zip"\r\nContent-Type: application/zip', ''));
    yield* createReadStream(file);
    yield Buffer.from(`\r\n--${boundary}--\r\n`);
  };
  return {
    method: 'POST',
    headers: { 'Content-Type': `multipart/form-data; boundary=${boundary}` },
    body: Readable.toWeb(Readable.from(body(), { objectMode: false })),
    duplex: 'half',
  };
}

/** Send an archive, tell how far it is, and return what came of it. */
async function send(address, file, fields) {
  const response = await ask(`${address}/api/archive`, formOf(file, fields));
  let rest = '';
  for await (const piece of Readable.fromWeb(response.body).setEncoding('utf8')) {
    const lines = (rest + piece).split('\n');
    rest = lines.pop();
    for (const line of lines) {
      const told = JSON.parse(line);
      if (told.errors) throw new Refused(told.errors);
      if (told.result) return told.result;
      progress(`${told.doing} ${told.done} of ${told.of}`);
    }
  }
  throw refused('', 'the shop stopped answering: nothing was imported', 'once more');
}

/** Ask at the terminal whose state counts, one after another. */
async function chosen(differences) {
  const terminal = createInterface({ input: process.stdin, output: process.stderr });
  const choices = {};
  for (const { path, called, fields } of differences) {
    console.error(`\n${called} was changed here and there:`);
    for (const { field, ours, theirs } of fields)
      console.error(`  ${field}: here ${ours ?? 'not given'}, in the archive ${theirs ?? 'not given'}`);
    for (let answer = ''; !choices[path];) {
      answer = (await terminal.question('Keep what is here (o), or take what is in the archive (t)? ')).trim().toLowerCase();
      if (answer === 'o' || answer === 'ours') choices[path] = 'ours';
      if (answer === 't' || answer === 'theirs') choices[path] = 'theirs';
    }
  }
  terminal.close();
  return choices;
}

async function importCommand(words) {
  const usage = 'isometra import FILE.zip [--conflicts ours|theirs|ask] [--by INITIALS] [--url ADDRESS]';
  const { files, options } = read(words, ['conflicts', 'by', 'url'], usage);
  if (files.length !== 1) throw refused('', 'name one archive', usage);
  const [file] = files;
  const known = await stat(file).catch((error) => {
    throw refused('', `cannot read ${file}: ${error.code}`, 'archive.zip');
  });
  if (!known.isFile()) throw refused('', `${file} is not a file`, 'archive.zip');
  const { conflicts = 'ask', by } = options;
  if (!['ours', 'theirs', 'ask'].includes(conflicts)) throw refused('--conflicts', `"${conflicts}" is none of ours, theirs, ask`, 'ask');
  const address = addressOf(options);
  const fields = { conflicts, ...(by && { by }) };
  let result = await send(address, file, fields);
  if (!result.taken && process.stdin.isTTY && process.stderr.isTTY)
    result = await send(address, file, { ...fields, choices: JSON.stringify(await chosen(result.differences)) });
  progress('');
  console.log(JSON.stringify(result, null, 2));
  if (result.taken) return;
  console.error('Nothing was imported: say with --conflicts ours or theirs what stands where both were changed.');
  process.exitCode = 1;
}

async function verifyCommand(words) {
  const usage = 'isometra verify [REPORT.pdf] ARCHIVE.zip';
  const { files } = read(words, [], usage);
  if (files.length < 1 || files.length > 2) throw refused('', 'name a report and an archive, or an archive alone', usage);
  const { OpenArchive, madeFrom, verifyArchive } = await import('@isometra/server/archives');
  const archiveFile = files.at(-1);
  const report = files.length === 2 ? await readFile(files[0]).catch((error) => unread(files[0], error)) : undefined;
  await stat(archiveFile).catch((error) => unread(archiveFile, error));
  const archive = await OpenArchive.open(archiveFile);
  try {
    if (!report) {
      await verifyArchive(archive);
      console.log(
        JSON.stringify(
          { whole: true, scope: archive.manifest.scope, files: archive.paths().length, fingerprint: archive.fingerprint },
          null,
          2,
        ),
      );
      return;
    }
    const made = await madeFrom(report, archive);
    console.log(JSON.stringify(made, null, 2));
    if (!made.made) process.exitCode = 1;
  } finally {
    archive.close();
  }
}

function unread(file, error) {
  throw refused('', `cannot read ${file}: ${error.code ?? error.message}`, 'report.pdf archive.zip');
}

/** What is wrong is told as JSON, as everywhere; nothing else comes out. */
const told = (command) => async (words, refuse) => {
  try {
    await command(words);
  } catch (error) {
    const errors = error.errors ?? error.faults;
    if (!Array.isArray(errors)) throw error;
    progress('');
    refuse(errors);
    // An archive or a report that is not whole is an answer: no, it was not made from that.
    if (command === verifyCommand && error.faults) process.exitCode = 1;
  }
};

export const archiveCommands = { export: told(exportCommand), import: told(importCommand), verify: told(verifyCommand) };
