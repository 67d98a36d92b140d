// The least that can be done: an HTTP server that puts one row into one table with the driver. What ours is held against.
import express from 'express';
import { createPool } from 'mariadb';

const pool = createPool({ ...JSON.parse(process.env.BARE_DATABASE), connectionLimit: 10 });
await pool.query('CREATE TABLE IF NOT EXISTS bare (id CHAR(36) PRIMARY KEY, `keys` JSON NOT NULL, value VARCHAR(60), `by` VARCHAR(8))');
const app = express();
app.use(express.json());
app.post('/readings', async (request, response) => {
  const { id, keys, value, by } = request.body;
  await pool.query('INSERT INTO bare (id, `keys`, value, `by`) VALUES (?, ?, ?, ?)', [id, JSON.stringify(keys), value, by]);
  response.status(201).json(request.body);
});
const server = app.listen(0, '127.0.0.1', () => console.log(server.address().port));
process.once('SIGTERM', () => process.exit(0));
