import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import { seeded } from '@fairwatt/core/simulate';

/** What a supplier sells, with the price before any change. */
export interface ListedSupply {
  readonly id: string;
  readonly name: string;
  readonly minor: number;
  readonly currency: string;
}

/** What the stand-in can do wrong, by `?fault=` in the address. */
export const feedFaults = [
  'none',
  'slow',
  'wrong',
  'broken-rows',
  'half',
  'not-a-list',
  'refuses',
  'far-too-long',
] as const;
export type FeedFault = (typeof feedFaults)[number];

/**
 * The list of a day as CSV: prices wander by up to 8 % about where they began, the same on the same day. One supply in
 * twenty is not listed that day, and the supplier sells some that the shop does not know.
 */
export function priceList(supplies: readonly ListedSupply[], day: string): string {
  const random = seeded(Number(day.replaceAll('-', '')));
  const rows = supplies.flatMap((supply) => {
    const factor = 0.92 + 0.16 * random();
    const price = ((Math.round((supply.minor * factor) / 10) * 10) / 100).toFixed(2);
    return random() < 0.05 ? [] : [`${supply.id},"${supply.name}",${price},${supply.currency},${day}`];
  });
  return `id,name,price,currency,date\n${rows.join('\n')}\nsupplier-only-1,"Not in this shop",49.90,EUR,${day}\n`;
}

export interface ServedFeed {
  readonly port: number;
  readonly close: () => Promise<void>;
}

/** A supplier's price list over HTTP on loopback, with the faults that real ones have. */
export async function servePriceFeed(
  supplies: readonly ListedSupply[],
  today: () => string,
  slowMilliseconds = 15_000,
): Promise<ServedFeed> {
  const server = createServer((request, response) => {
    const url = new URL(request.url ?? '/', 'http://127.0.0.1');
    const fault = feedFaults.find((name) => name === url.searchParams.get('fault')) ?? 'none';
    if (url.pathname !== '/price-list.csv') {
      response.writeHead(404).end();
      return;
    }
    const list = priceList(supplies, today());
    const csv = { 'content-type': 'text/csv; charset=utf-8' };
    switch (fault) {
      case 'none':
        response.writeHead(200, csv).end(list);
        break;
      case 'slow':
        void wait(slowMilliseconds, undefined, { ref: false }).then(() => {
          if (!response.destroyed) response.writeHead(200, csv).end(list);
        });
        break;
      case 'wrong':
        response.writeHead(200, csv).end(list.replace('id,name,price', 'article;label;cost'));
        break;
      case 'broken-rows':
        response.writeHead(200, csv).end(
          list
            .split('\n')
            .map((row, index) => (index % 5 === 3 ? row.replace(/,[\d.]+,/, ',much,') : row))
            .join('\n'),
        );
        break;
      case 'half':
        response.writeHead(200, { ...csv, 'content-length': String(Buffer.byteLength(list)) });
        response.write(list.slice(0, Math.floor(list.length / 2)));
        setTimeout(() => response.destroy(), 20);
        break;
      case 'not-a-list':
        response.writeHead(200, { 'content-type': 'text/html' }).end('<p>Please sign in</p>');
        break;
      case 'refuses':
        response.writeHead(503).end();
        break;
      case 'far-too-long': {
        response.writeHead(200, csv);
        const block = `${'x'.repeat(65_535)}\n`;
        const more = () => {
          while (!response.destroyed)
            if (!response.write(block)) {
              response.once('drain', more);
              return;
            }
        };
        more();
        break;
      }
    }
  });
  await new Promise<void>((resolve) => {
    server.listen(0, '127.0.0.1', resolve);
  });
  return {
    port: (server.address() as AddressInfo).port,
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
      }),
  };
}
