import { X509Certificate } from 'node:crypto';
import { connect, createServer, type TLSSocket } from 'node:tls';
import type { AddressInfo } from 'node:net';
import { beforeAll, describe, expect, it } from 'vitest';
import { fingerprintOf, makeAuthority, makeServerCertificate, namesIn, stillDoes, type Pair } from './authority.ts';

const now = new Date();
const later = (days: number) => new Date(now.getTime() + days * 86_400_000);
const names = ['bench.local', 'localhost', '127.0.0.1', '192.168.7.20'];
let authority: Pair;
let server: Pair;
beforeAll(async () => {
  authority = await makeAuthority('Ferry Steps, "Repairs"', now);
  server = await makeServerCertificate(authority, names, now);
});

/** What a client that trusts `root` says of a server with this certificate, called by a name. */
async function spokenTo(pair: Pair, root: string, name: string): Promise<string> {
  const listening = createServer({ cert: pair.certificate, key: pair.key });
  await new Promise<void>((resolve) => {
    listening.listen(0, '127.0.0.1', resolve);
  });
  const { port } = listening.address() as AddressInfo;
  try {
    return await new Promise((resolve) => {
      const socket: TLSSocket = connect({ host: '127.0.0.1', port, ca: root, servername: name }, () => {
        resolve('trusted');
        socket.end();
      });
      socket.once('error', (error: Error & { code?: string }) => resolve(error.code ?? error.message));
    });
  } finally {
    listening.close();
  }
}

describe('an authority of the shop', () => {
  it('signs a certificate that a client trusts who trusts the authority, under its names and no other', async () => {
    expect(await spokenTo(server, authority.certificate, 'bench.local')).toBe('trusted');
    expect(await spokenTo(server, authority.certificate, 'elsewhere.local')).toBe('ERR_TLS_CERT_ALTNAME_INVALID');
    const other = await makeAuthority('Another', now);
    expect(await spokenTo(server, other.certificate, 'bench.local')).not.toBe('trusted');
  });
  it('is one by what node reads of it too, and its servers are none', () => {
    const root = new X509Certificate(authority.certificate);
    const held = new X509Certificate(server.certificate);
    expect([root.ca, held.ca, held.checkIssued(root), held.verify(root.publicKey)]).toEqual([true, false, true, true]);
    expect(held.checkIP('192.168.7.20')).toBe('192.168.7.20');
    expect(held.checkIP('192.168.7.21')).toBeUndefined();
    expect(namesIn(server.certificate)).toEqual(names);
  });
  it('is compared by its fingerprint', async () => {
    expect(await fingerprintOf(authority.certificate)).toBe(new X509Certificate(authority.certificate).fingerprint256);
  });
});

describe('a certificate of a server', () => {
  it('does while it holds the names of the machine and does not end soon', () => {
    expect(stillDoes(server.certificate, ['BENCH.local', '192.168.7.20'], now)).toBe(true);
    expect(stillDoes(server.certificate, [...names, '10.0.0.4'], now)).toBe(false);
    expect(stillDoes(server.certificate, names, later(340))).toBe(true);
    expect(stillDoes(server.certificate, names, later(360))).toBe(false);
  });
  it('ends within what browsers take', () => {
    const { validFrom, validTo } = new X509Certificate(server.certificate);
    expect((Date.parse(validTo) - Date.parse(validFrom)) / 86_400_000).toBeLessThanOrEqual(398);
  });
  it('needs a name', async () => {
    await expect(makeServerCertificate(authority, [], now)).rejects.toThrow('needs a name');
  });
});
