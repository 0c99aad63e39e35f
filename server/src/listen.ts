import { createServer as createPlain, type RequestListener, type Server } from 'node:http';
import { createServer as createSecure } from 'node:https';
import type { AddressInfo } from 'node:net';
import type { Pair } from './tls/authority.ts';

/** So many ports are tried, from the wanted one on. */
const portsTried = 50;

/**
 * A connection stays open so long after an answer, in milliseconds: somebody who thinks for a minute between two acts
 * does not wait for another one, nor for its TLS. Headers may then take as long and a little more.
 */
const patient = { keepAliveTimeout: 75_000, headersTimeout: 80_000 };

/** Listens on the wanted port or the next free one. @returns the port */
function listenFrom(server: Server, host: string, wanted: number): Promise<number> {
  return new Promise((resolve, reject) => {
    const attempt = (port: number) => {
      const failed = (error: Error & { code?: string }) => {
        if (error.code === 'EADDRINUSE' && port < wanted + portsTried) attempt(port + 1);
        else reject(error);
      };
      server.once('error', failed);
      server.listen(port, host, () => {
        server.off('error', failed);
        resolve((server.address() as AddressInfo).port);
      });
    };
    attempt(wanted);
  });
}

export interface Listening {
  readonly server: Server;
  readonly port: number;
}

const isLoopbackHost = (host: string): boolean => host === 'localhost' || host === '::1' || /^127\./.test(host);

/**
 * Plain HTTP, on this machine alone: what passes over a network unread and unchanged needs TLS.
 * @throws in words for another address than one of loopback
 */
export async function listenPlainly(host: string, wanted: number): Promise<Listening> {
  if (!isLoopbackHost(host))
    throw new Error(
      `Plain HTTP is spoken on this machine only, and FAIRWATT_HOST is ${host}. ./fairwatt ` +
        'serve --lan speaks TLS on the network.',
    );
  const server = createPlain(patient);
  return { server, port: await listenFrom(server, host, wanted) };
}

/** TLS on every address of this machine. @throws when certificate and key do not belong together */
export async function listenSecurely({ certificate, key }: Pair, wanted: number): Promise<Listening> {
  const server = createSecure({ ...patient, cert: certificate, key, minVersion: 'TLSv1.2' });
  return { server, port: await listenFrom(server, '0.0.0.0', wanted) };
}

/** What listens answers with this from now on. */
export const answerWith = (handler: RequestListener, ...servers: readonly Listening[]): void => {
  for (const { server } of servers) server.on('request', handler);
};
