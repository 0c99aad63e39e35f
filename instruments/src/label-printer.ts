import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';

/** What the stand-in printer can do wrong. */
export type PrinterFault = 'none' | 'out-of-labels' | 'silent' | 'nonsense' | 'cut';

export interface ServedPrinter {
  readonly port: number;
  /** What was printed, oldest first: the document and how many labels it had. */
  readonly printed: readonly { readonly job: string; readonly labels: number; readonly document: Buffer }[];
  readonly fail: (fault: PrinterFault) => void;
  readonly close: () => Promise<void>;
}

const mostBytes = 20_000_000;
const mostKept = 20;

/** How many pages a PDF says that it has: one label each. */
export function pagesOf(document: Buffer): number {
  return (document.toString('latin1').match(/\/Type\s*\/Page(?![a-zA-Z])/g) ?? []).length;
}

/**
 * A label printer on loopback: takes a PDF by POST to /print, answers with its job number, and keeps the last ones at
 * /printed/NUMBER.
 */
export async function serveLabelPrinter(): Promise<ServedPrinter> {
  let fault: PrinterFault = 'none';
  let count = 0;
  const printed: { job: string; labels: number; document: Buffer }[] = [];
  const server = createServer((request, response) => {
    const url = new URL(request.url ?? '/', 'http://127.0.0.1');
    const say = (status: number, body: unknown) =>
      response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body));
    if (request.method === 'GET' && url.pathname.startsWith('/printed/')) {
      const found = printed.find((item) => `/printed/${item.job}` === url.pathname);
      if (found === undefined) say(404, { error: 'no such job' });
      else response.writeHead(200, { 'content-type': 'application/pdf' }).end(found.document);
      return;
    }
    if (request.method !== 'POST' || url.pathname !== '/print') {
      say(404, { error: 'not here' });
      return;
    }
    const chunks: Buffer[] = [];
    let length = 0;
    request.on('data', (chunk: Buffer) => {
      length += chunk.length;
      if (length > mostBytes) request.destroy();
      else chunks.push(chunk);
    });
    request.on('error', () => {
      /* the sender went away, which is its right */
    });
    request.on('end', () => {
      const document = Buffer.concat(chunks);
      switch (fault) {
        case 'out-of-labels':
          say(503, { error: 'out of labels' });
          return;
        case 'silent':
          return;
        case 'nonsense':
          response.writeHead(200, { 'content-type': 'text/plain' }).end('OK?');
          return;
        case 'cut':
          response.destroy();
          return;
        case 'none':
          break;
      }
      if (document.subarray(0, 5).toString('latin1') !== '%PDF-') {
        say(415, { error: 'no PDF' });
        return;
      }
      count += 1;
      const job = { job: String(count), labels: pagesOf(document), document };
      printed.push(job);
      if (printed.length > mostKept) printed.shift();
      say(201, { job: job.job, labels: job.labels });
    });
  });
  await new Promise<void>((resolve) => {
    server.listen(0, '127.0.0.1', resolve);
  });
  return {
    port: (server.address() as AddressInfo).port,
    printed,
    fail: (wanted) => {
      fault = wanted;
    },
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
      }),
  };
}
