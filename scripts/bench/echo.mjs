// What `benchSaving.mjs` measures saves beside: a server that answers what it is sent, one that writes it down durably first, and one that
// writes down together what has arrived together. None of them looks at what it is sent.
import { setImmediate as nextTurn } from 'node:timers/promises';
import fastify from 'fastify';
import { createConnection, createPool } from 'mariadb';

const url = new URL(process.env.DATABASE_URL);
const database = {
  host: url.hostname,
  port: Number(url.port),
  user: url.username,
  password: decodeURIComponent(url.password),
  database: url.pathname.slice(1),
};
const MOST_TOGETHER = 64;

const pool = createPool({ ...database, connectionLimit: 8 });
const one = await createConnection(database);
await one.query('CREATE TABLE bench_echo (id INT AUTO_INCREMENT PRIMARY KEY, body TEXT)');

const waiting = [];
let isWriting = false;
async function writeWaiting() {
  isWriting = true;
  for (;;) {
    await nextTurn();
    const together = waiting.splice(0, MOST_TOGETHER);
    if (together.length === 0) break;
    await one.execute(
      `INSERT INTO bench_echo (body) VALUES ${together.map(() => '(?)').join(', ')}`,
      together.map(({ body }) => JSON.stringify(body)),
    );
    for (const { body, done } of together) done(body);
  }
  isWriting = false;
}

const app = fastify();
app.post('/echo', (asked) => asked.body);
app.post('/durable', async (asked) => {
  await pool.execute('INSERT INTO bench_echo (body) VALUES (?)', [JSON.stringify(asked.body)]);
  return asked.body;
});
app.post(
  '/together',
  (asked) =>
    new Promise((done) => {
      waiting.push({ body: asked.body, done });
      if (!isWriting) void writeWaiting();
    }),
);
console.log(`listening on ${await app.listen({ port: Number(process.env.PORT), host: '127.0.0.1' })}`);
