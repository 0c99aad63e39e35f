import { createServer, request as ask, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';

/** Figures from 0 to 1 that follow from a seed. */
export function dice(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state ^ (state >>> 15), 0x2c1b3c6d) + 0x9e3779b9) >>> 0;
    return ((state ^ (state >>> 13)) >>> 0) / 2 ** 32;
  };
}

export interface RoughProxy {
  readonly base: string;
  /** Where it leads now, to each of them in turn. */
  targets: readonly string[];
  readonly counts: Record<'passed' | 'request-lost' | 'answer-lost' | 'late' | 'doubled', number>;
  readonly close: () => Promise<void>;
}

const read = async (incoming: IncomingMessage): Promise<Buffer> => {
  const pieces: Buffer[] = [];
  for await (const piece of incoming) pieces.push(piece as Buffer);
  return Buffer.concat(pieces);
};

/**
 * A line between browser and server that loses requests, loses answers, delays, doubles and lets later ones overtake.
 */
export function roughProxy(random: () => number): Promise<RoughProxy> {
  const counts: RoughProxy['counts'] = { passed: 0, 'request-lost': 0, 'answer-lost': 0, late: 0, doubled: 0 };
  const proxy = { targets: [], counts } as Pick<RoughProxy, 'targets' | 'counts'>;
  let turn = 0;
  const forward = (incoming: IncomingMessage, body: Buffer) =>
    new Promise<{ status: number; headers: IncomingMessage['headers']; body: Buffer }>((resolve, reject) => {
      const target = proxy.targets[turn % proxy.targets.length] ?? '';
      turn += 1;
      const outgoing = ask(
        `${target}${incoming.url ?? '/'}`,
        { method: incoming.method, headers: { ...incoming.headers, host: new URL(target).host } },
        (answer) => {
          read(answer).then((bytes) => {
            resolve({ status: answer.statusCode ?? 0, headers: answer.headers, body: bytes });
          }, reject);
        },
      );
      outgoing.on('error', reject);
      outgoing.end(body);
    });
  const serve = async (incoming: IncomingMessage, response: ServerResponse): Promise<void> => {
    const body = await read(incoming);
    const luck = random();
    if (luck < 0.08) {
      counts['request-lost'] += 1;
      response.destroy();
      return;
    }
    if (luck < 0.25) {
      counts.late += 1;
      await new Promise((resolve) => {
        setTimeout(resolve, random() * 400);
      });
    }
    if (luck > 0.85 && luck < 0.93) {
      counts.doubled += 1;
      void forward(incoming, body).catch(() => undefined);
    }
    const answer = await forward(incoming, body);
    if (luck > 0.92) {
      counts['answer-lost'] += 1;
      response.destroy();
      return;
    }
    counts.passed += 1;
    response.writeHead(answer.status, answer.headers).end(answer.body);
  };
  const server: Server = createServer((incoming, response) => {
    serve(incoming, response).catch(() => response.destroy());
  });
  return new Promise((resolve) => {
    server.listen(0, '127.0.0.1', () =>
      resolve(
        Object.assign(proxy, {
          base: `http://127.0.0.1:${(server.address() as AddressInfo).port}/api`,
          close: () =>
            new Promise<void>((ended) => {
              server.close(() => ended());
              server.closeAllConnections();
            }),
        }),
      ),
    );
  });
}
