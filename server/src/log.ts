import { join } from 'node:path';
import { pino, type Logger } from 'pino';

/** Tells a person at the console something that he must know; the start command passes it on. */
export function notice(text: string): void {
  process.stdout.write(`notice ${text.replaceAll('\n', ' ')}\n`);
}

/**
 * The server's log: files in the data folder that turn over daily and at 10 MB, fourteen of them kept; on standard
 * output where there is no data folder. A folder that cannot be written to is told once and does not end the server.
 */
export function createLog(dataFolder: string | null, level: string): Logger {
  if (dataFolder === null) return pino({ level });
  const transport = pino.transport({
    target: 'pino-roll',
    options: {
      file: join(dataFolder, 'logs', 'server'),
      extension: '.log',
      frequency: 'daily',
      size: '10m',
      limit: { count: 14 },
      mkdir: true,
    },
  });
  let told = false;
  transport.on('error', (error: unknown) => {
    if (!told)
      notice(
        `The log cannot be written (${error instanceof Error ? error.message : String(error)}); ` +
          'the work goes on without it.',
      );
    told = true;
  });
  return pino({ level, timestamp: pino.stdTimeFunctions.isoTime }, transport);
}
