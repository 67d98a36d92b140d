// A shop with 5,000 photographs, one gigabyte: out as an archive, stopped half way on its way in, then in. What the server needs for it.
import { createHash, randomBytes } from 'node:crypto';
import { createWriteStream, openAsBlob, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createConnection } from 'mariadb';
import { ask, json } from './shop.mjs';
import { report } from './target.mjs';
import { serve } from '../served.mjs';

const PHOTOGRAPHS = 5000;
const BYTES = 210_000;
const A_NOTE = 12;
const MOST = 300;

/** A photograph as a camera's file begins and ends, its inside noise: nothing of it can be packed. */
const photograph = () => Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0]), randomBytes(BYTES), Buffer.from([0xff, 0xd9])]);

async function photographs(shop) {
  const connection = await createConnection(shop.database);
  const hashes = [];
  for (let i = 0; i < PHOTOGRAPHS; i++) {
    const bytes = photograph();
    const hash = createHash('sha256').update(bytes).digest('hex');
    await connection.query(
      "INSERT INTO pictures (hash, type, width, height, size, `by`, `at`) VALUES (?, 'jpeg', 800, 600, ?, 'B', NOW(3))",
      [hash, bytes.length],
    );
    await connection.query('INSERT INTO picture_parts (hash, part, bytes) VALUES (?, 0, ?)', [hash, bytes]);
    hashes.push(hash);
  }
  await connection.end();
  for (let i = 0; i < hashes.length; i += A_NOTE)
    await ask(
      `${shop.address}/api/remarks`,
      json('POST', {
        ...{ id: crypto.randomUUID(), machineId: null, part: null, place: { path: '/machines', words: 'Machines' }, text: `Note ${i}` },
        pictures: hashes.slice(i, i + A_NOTE).map((hash) => ({ hash, marks: [] })),
        ...{ supersedes: null, by: 'B', at: new Date().toISOString() },
      }),
    );
}

/** The processes of servers that this one has started. */
const servers = () =>
  readdirSync('/proc').filter((pid) => {
    try {
      const ours = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]?.split(' ')[1] === String(process.pid);
      return ours && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('node');
    } catch {
      return false;
    }
  });

/** The most memory that a process has had since, MB. */
const peak = (pid) => Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;
const forget = (pid) => writeFileSync(`/proc/${pid}/clear_refs`, '5');

/** Send an archive, and hear how far it is. @param until stops it: by what is told. */
async function take(shop, file, until = () => false) {
  const form = new FormData();
  form.append('archive', await openAsBlob(file), 'shop.zip');
  const stop = new AbortController();
  const response = await fetch(`${shop.address}/api/archive`, { method: 'POST', body: form, signal: stop.signal });
  const lines = [];
  try {
    let rest = '';
    for await (const chunk of response.body) {
      rest += Buffer.from(chunk).toString();
      const parts = rest.split('\n');
      rest = parts.pop();
      for (const part of parts.filter(Boolean)) lines.push(JSON.parse(part));
      if (until(lines.at(-1))) stop.abort();
    }
  } catch (error) {
    if (error.name !== 'AbortError') throw error;
  }
  return lines;
}

export async function measureArchives() {
  const folder = await mkdtemp(join(tmpdir(), 'isometra-bench-'));
  const file = join(folder, 'shop.zip');
  const shop = await serve({ demo: true });
  const [from] = servers();
  const other = await serve({ demo: false });
  const into = servers().find((pid) => pid !== from);
  try {
    await photographs(shop);
    forget(from);
    let began = performance.now();
    const answer = await fetch(`${shop.address}/api/archive.zip`);
    await pipeline(Readable.fromWeb(answer.body), createWriteStream(file));
    const { size } = await stat(file);
    const seconds = (since) => `${((performance.now() - since) / 1000).toFixed(0)} s`;
    report(
      `an archive of ${(size / 1e9).toFixed(2)} GB, out`,
      `${seconds(began)}, ${peak(from).toFixed(0)} MB`,
      `under ${MOST} MB`,
      peak(from) < MOST,
    );

    forget(into);
    await take(other, file, (line) => line?.done > 0.5 * line?.of && line.of > 1000);
    const left = await ask(`${other.address}/api/machines`);
    report('the same stopped half way in', `${left.length} machines`, 'the shop as it was', left.length === 0);
    began = performance.now();
    const lines = await take(other, file);
    const { result } = lines.at(-1);
    report(
      'the same, in',
      `${seconds(began)}, ${peak(into).toFixed(0)} MB`,
      `under ${MOST} MB`,
      peak(into) < MOST && result?.taken === true,
    );
    report('told meanwhile', `${lines.length} times`, 'more than ten times', lines.length > 10);
  } finally {
    await shop.stop();
    await other.stop();
    await rm(folder, { recursive: true, force: true });
  }
}
