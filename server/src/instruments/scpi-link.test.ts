import { Worker } from 'node:worker_threads';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { ScpiLink } from './scpi-link.ts';

/** An instrument on a thread of its own: it answers in time, whatever holds this one up. */
const instrument = `
  const { createServer } = require('node:net');
  const { parentPort } = require('node:worker_threads');
  const server = createServer((socket) => {
    socket.on('error', () => undefined);
    socket.on('data', (data) => {
      const [, turn, question] = /^\\*ESE (\\d+);([^;]*)/.exec(String(data));
      if (question !== 'NEVER?') setTimeout(() => socket.write('5.01;' + turn + '\\n'), 50);
    });
  });
  server.listen(0, '127.0.0.1', () => parentPort.postMessage(server.address().port));
`;
const answerMilliseconds = 200;

let worker: Worker;
let port = 0;
beforeAll(async () => {
  worker = new Worker(instrument, { eval: true });
  port = await new Promise<number>((resolve) => {
    worker.once('message', resolve);
  });
});
afterAll(() => worker.terminate());

it('takes an answer that came while this process was held up, however long that was', async () => {
  const link = await ScpiLink.open('127.0.0.1', port, answerMilliseconds);
  const answer = link.askFigure('MEASure:VOLTage:DC?');
  const until = performance.now() + 3 * answerMilliseconds;
  while (performance.now() < until);
  expect(await answer).toBe(5.01);
  link.close();
});

it('calls an instrument silent that does not answer in time', async () => {
  const link = await ScpiLink.open('127.0.0.1', port, answerMilliseconds);
  await expect(link.ask('NEVER?')).rejects.toMatchObject({ trouble: 'silent' });
});
