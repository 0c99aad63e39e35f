import { setTimeout as wait } from 'node:timers/promises';
import { guardMessageSchema } from './load-guard.ts';
import { switchOff, type Address } from './switch-off.ts';

// Started by the server when a load may draw. When the server is gone without having switched it off, this does.
const drawing = new Map<string, Address>();
const patienceMilliseconds = 120_000;

process.on('message', (message: unknown) => {
  const { draws, host, port } = guardMessageSchema.parse(message);
  const key = `${host}:${port}`;
  if (draws) drawing.set(key, { host, port });
  else drawing.delete(key);
});
process.send?.('watching');
// Whoever ends the server in order has it switch off its loads; this process ends when the server is gone.
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => undefined);

process.on('disconnect', () => {
  const until = Date.now() + patienceMilliseconds;
  const end = async (key: string, load: Address): Promise<void> => {
    while (Date.now() < until) {
      if (await switchOff(load, null)) {
        drawing.delete(key);
        return;
      }
      await wait(500);
    }
  };
  void Promise.all([...drawing].map(([key, load]) => end(key, load))).then(() =>
    process.exit(drawing.size === 0 ? 0 : 1),
  );
});
