// The logbook of a machine with ten thousand rounds: its first page, one far down, and a search.
import { createConnection } from 'mariadb';
import { ask } from './shop.mjs';
import { ms, report, spread } from './target.mjs';

const WORDS = ['ram', 'shim', 'felt', 'spindle', 'gib', 'chuck', 'wedge', 'foot'];

/** An entry for every round, and as many notes: straight into the table. */
async function fill(url, machineId) {
  const connection = await createConnection(url);
  await connection.query(
    `INSERT INTO log_entries (machineId, \`at\`, \`by\`, what, text, part, thing, thingId)
      SELECT machineId, \`at\`, \`by\`, 'round', 'Bar between centres: round begun', kind, 'round', id FROM rounds WHERE machineId = ?`,
    [machineId],
  );
  await connection.query(
    `INSERT INTO log_entries (machineId, \`at\`, \`by\`, what, text, part)
      SELECT machineId, \`at\`, 'B', 'survey', CONCAT(ELT(1 + MOD(UNIX_TIMESTAMP(\`at\`) DIV 60, ${WORDS.length}), ${WORDS.map((word) => `'${word}'`).join(', ')}),
        ' looked at before round ', UNIX_TIMESTAMP(\`at\`)), kind FROM rounds WHERE machineId = ?`,
    [machineId],
  );
  await connection.end();
}

/** @param machineId a machine whose 10,000 rounds were worked out. */
export async function measureLogbook(shop, machineId) {
  await fill(shop.database, machineId);
  const timed = async (query) => {
    const times = [];
    let page;
    for (let i = 0; i < 7; i++) {
      const before = performance.now();
      page = await ask(`${shop.address}/api/log?${query}`);
      times.push(performance.now() - before);
    }
    if (page.entries.length === 0) throw new Error(`nothing was found: ${query}`);
    return { page, median: spread(times.slice(1)).median, bytes: JSON.stringify(page).length };
  };
  const first = await timed(`machine=${machineId}`);
  report('the first page of a logbook of 20,000 entries', ms(first.median), 'at most 300 ms', first.median <= 300);
  report('its size', `${(first.bytes / 1000).toFixed(0)} kB`, 'at most 200 kB', first.bytes <= 200_000);
  const found = await timed('words=shim+look');
  report('words searched in a shop of 20,000 entries', ms(found.median), 'at most 200 ms', found.median <= 200);
  const short = await timed(`words=gib+at&machine=${machineId}`);
  report('the same with a word of two letters', ms(short.median), 'at most 200 ms', short.median <= 200);
}
