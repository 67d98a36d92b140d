// A shop to measure in: machines with as many rounds as are wanted.
import { createConnection } from 'mariadb';
import { roundWriteOf } from '@isometra/contract';

export const json = (method, body) => ({ method, headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) });

/** What the server answers; fails with its refusal. */
export async function ask(url, options) {
  const response = await fetch(url, options);
  const body = await response.json();
  if (!response.ok) throw new Error(`${response.status} ${url}: ${JSON.stringify(body)}`);
  return body;
}

/** A machine with `count` rounds, each as `round` is. */
export async function machineWith(shop, template, count, number) {
  const id = crypto.randomUUID();
  const card = { number, kind: 'engine-lathe' };
  await ask(`${shop.address}/api/machines`, json('POST', { id, card, version: 1, by: 'B' }));
  const round = { ...roundWriteOf(template), id: crypto.randomUUID(), machineId: id, at: '2026-01-01T08:00:00.000Z', version: 1 };
  await ask(`${shop.address}/api/rounds`, json('POST', round));
  const readings = template.readings.map(({ keys, value, set }) => ({ id: crypto.randomUUID(), keys, value, set, by: 'B', at: round.at }));
  await ask(`${shop.address}/api/rounds/${round.id}/readings`, json('POST', readings));
  await multiply(shop.database, round.id, count - 1);
  return { machineId: id, roundId: round.id };
}

/** The same round again and again, straight into the tables. */
async function multiply(url, roundId, times) {
  const connection = await createConnection(url);
  const copies = Array.from({ length: times }, () => crypto.randomUUID());
  await connection.query('CREATE TEMPORARY TABLE copies (id CHAR(36) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin PRIMARY KEY, place INT)');
  for (let from = 0; from < copies.length; from += 1000)
    await connection.batch(
      'INSERT INTO copies VALUES (?, ?)',
      copies.slice(from, from + 1000).map((id, i) => [id, from + i]),
    );
  const columns = [
    'checkId',
    'machineId',
    'kind',
    'setup',
    'plan',
    'instrument',
    'instrumentName',
    'conditions',
    'purpose',
    'note',
    '`by`',
    'version',
  ];
  await connection.query(
    `INSERT INTO rounds (id, \`at\`, ${columns.join(', ')}) SELECT c.id, r.\`at\` + INTERVAL c.place MINUTE, ${columns.map((column) => `r.${column}`).join(', ')} FROM copies c, rounds r WHERE r.id = ?`,
    [roundId],
  );
  await connection.query(
    'INSERT INTO readings (id, roundId, sequence, `keys`, value, bare, setUp, `by`, `at`) SELECT UUID(), c.id, x.sequence, x.keys, x.value, x.bare, x.setUp, x.`by`, x.`at` FROM copies c, readings x WHERE x.roundId = ?',
    [roundId],
  );
  await connection.end();
}

/** A round of the demo between centres, with its readings. */
export async function template(shop) {
  const machines = await ask(`${shop.address}/api/machines`);
  const lathe = machines.find(({ card }) => card.number === 'L-14');
  return (await ask(`${shop.address}/api/machines/${lathe.id}/rounds?check=tailstock-traverse`)).at(-1);
}
