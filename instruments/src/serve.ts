import { createServer, type AddressInfo, type Socket } from 'node:net';
import type { ScpiInterpreter } from './scpi.ts';

/**
 * What goes wrong on purpose, so that whoever talks to an instrument can be tried against it; `once` loses one answer.
 */
export type Fault = 'none' | 'once' | 'cut' | 'silent' | 'garbage' | 'flood' | 'stale' | 'half';

export interface ServedInstrument {
  readonly port: number;
  /** From the next answer on. */
  readonly fail: (fault: Fault) => void;
  readonly close: () => Promise<void>;
}

const longestLine = 4096;

/** Serves an instrument on loopback, one command line at a time, each client with a language of its own. */
export function serveInstrument(
  make: () => ScpiInterpreter,
  options: { readonly port?: number; readonly answerMilliseconds?: number } = {},
): Promise<ServedInstrument> {
  let fault: Fault = 'none';
  const sockets = new Set<Socket>();
  const server = createServer((socket) => {
    sockets.add(socket);
    socket.setNoDelay(true);
    const interpreter = make();
    let before = '';
    let buffer = '';
    let queue = Promise.resolve();
    const answer = async (line: string): Promise<void> => {
      const text = interpreter.line(line);
      if (options.answerMilliseconds !== undefined)
        await new Promise((resolve) => {
          setTimeout(resolve, options.answerMilliseconds);
        });
      if (text === null || socket.destroyed) return;
      switch (fault) {
        case 'none':
          socket.write(`${text}\n`);
          break;
        case 'cut':
          socket.destroy();
          break;
        case 'once':
          fault = 'none';
          break;
        case 'silent':
          break;
        case 'half':
          socket.write(text.slice(0, Math.max(1, text.length >> 1)));
          socket.destroy();
          break;
        case 'garbage':
          socket.write('\u0007?!#~overload maybe\n');
          break;
        case 'flood':
          for (let count = 0; count < 400; count += 1) socket.write(`${text}\n${'9'.repeat(120)}`);
          break;
        case 'stale':
          socket.write(`${before === '' ? '0' : before}\n`);
          break;
      }
      before = text;
    };
    socket.on('data', (data: Buffer) => {
      buffer += data.toString('latin1');
      for (let end = buffer.indexOf('\n'); end >= 0; end = buffer.indexOf('\n')) {
        const line = buffer.slice(0, end).trim();
        buffer = buffer.slice(end + 1);
        queue = queue.then(() => answer(line));
      }
      if (buffer.length > longestLine) buffer = '';
    });
    socket.on('error', () => {
      /* the other end went away, which is its right */
    });
    socket.on('close', () => sockets.delete(socket));
  });
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(options.port ?? 0, '127.0.0.1', () =>
      resolve({
        port: (server.address() as AddressInfo).port,
        fail: (wanted) => {
          fault = wanted;
        },
        close: () =>
          new Promise((ended) => {
            for (const socket of sockets) socket.destroy();
            server.close(() => ended());
          }),
      }),
    );
  });
}
