import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { createPool, loadDemo, loadModel, programName, StationKeeper, Threads, Workers } from '@fairwatt/server';

// The demo shop, with what the lists say of all its jobs, so that not every test file has to make it again. A process
// of its own, since what lists say is named after the server that says it: the sources, or what is built.
const databaseUrl = process.argv[2]!;
const silent = pino({ level: 'silent' });
const pool = createPool(databaseUrl, silent);
const model = await loadModel();
await loadDemo(pool, model, fileURLToPath(new URL('../demo', import.meta.url)), new Date().toISOString());
const threads = new Threads({ program: programName(model) }, silent);
const workers = new Workers(threads, databaseUrl);
const keeper = new StationKeeper(pool, workers, silent);
const { rows } = await pool.query<{ id: string }>('select id from job order by id');
// A few at a time: what waits in the threads' queue has its time running.
for (let start = 0; start < rows.length; start += 4)
  if (!(await keeper.renew(rows.slice(start, start + 4).map(({ id }) => Number(id)))))
    throw new Error('what lists say of the demo is not made');
keeper.end();
await threads.close();
await pool.end();
