import { DataTypes, type QueryInterface } from 'sequelize';
import { indexOnce } from './indexOnce.js';

const COLUMNS = {
  part: { type: DataTypes.STRING(60), allowNull: true },
  thing: { type: DataTypes.STRING(16), allowNull: true },
  thingId: { type: DataTypes.UUID, allowNull: true },
  was: { type: DataTypes.STRING(200), allowNull: true },
};

// Entries of before said only whose machine they were. A round and a move are known by their time; what an entry of a face, of a piece
// of kit or of a sheet is about, by the name that it begins with, where nothing else has that name.
const KNOWN_BY = [
  `UPDATE log_entries l JOIN rounds r ON r.machineId = l.machineId AND r.at = l.at AND r.by = l.by
    SET l.part = r.kind, l.thing = 'round', l.thingId = r.id WHERE l.what = 'round' AND l.thing IS NULL AND l.text LIKE '%: round begun'`,
  `UPDATE log_entries l JOIN rounds r ON r.machineId = l.machineId
    JOIN moves m ON m.roundId = r.id AND m.by = l.by AND (m.doneAt = l.at OR (m.doneAt IS NULL AND m.begunAt = l.at))
    SET l.part = r.kind, l.thing = 'move', l.thingId = m.id WHERE l.what = 'move' AND l.thing IS NULL`,
  `UPDATE log_entries SET thing = 'machine', thingId = machineId WHERE what = 'machine' AND thing IS NULL AND machineId IS NOT NULL`,
  `UPDATE log_entries l JOIN surfaces s ON s.machineId = l.machineId AND LEFT(l.text, CHAR_LENGTH(s.name) + 2) = CONCAT(s.name, ': ')
    SET l.part = s.id, l.thing = 'face', l.thingId = s.id WHERE l.what = 'scraping' AND l.thing IS NULL
    AND (SELECT COUNT(*) FROM surfaces o WHERE o.machineId = s.machineId AND o.name = s.name) = 1`,
  `UPDATE log_entries l JOIN kit_items k ON LEFT(l.text, CHAR_LENGTH(k.name) + 2) = CONCAT(k.name, ': ') OR l.text = CONCAT(k.name, ' added')
    SET l.thing = 'kit', l.thingId = k.id WHERE l.what = 'kit' AND l.thing IS NULL
    AND (SELECT COUNT(*) FROM kit_items o WHERE o.name = k.name) = 1`,
];

/** The log says what it is about and how it was before, is as long as it has to be, and can be searched. Safe to run again half way. */
export async function up(database: QueryInterface): Promise<void> {
  const columns = await database.describeTable('log_entries');
  for (const [name, column] of Object.entries(COLUMNS)) if (!columns[name]) await database.addColumn('log_entries', name, column);
  // Its own collation: words are found however they are capitalised.
  await database.sequelize.query(
    'ALTER TABLE log_entries MODIFY COLUMN text MEDIUMTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NOT NULL',
  );
  await indexOnce(database, 'log_entries', ['at', 'id'], { name: 'log_entries_newest' });
  await indexOnce(database, 'log_entries', ['machineId', 'part'], { name: 'log_entries_part' });
  await indexOnce(database, 'log_entries', ['text'], { name: 'log_entries_words', type: 'FULLTEXT' });
  for (const statement of KNOWN_BY) await database.sequelize.query(statement);
}
