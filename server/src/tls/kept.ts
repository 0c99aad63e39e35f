import { existsSync } from 'node:fs';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { hostname, networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { fingerprintOf, makeAuthority, makeServerCertificate, stillDoes, type Pair } from './authority.ts';

/** What the server speaks TLS with, and how phones come to trust it. */
export interface ServerTls {
  readonly pair: Pair;
  /** The authority that phones install, in PEM, and what people compare; null with a certificate from elsewhere. */
  readonly root: { readonly certificate: string; readonly fingerprint: string } | null;
}

/** Written under another name first, so that a file that is there is whole; a key is for this user alone. */
async function keep(path: string, text: string, mode: number): Promise<void> {
  await writeFile(`${path}.new`, text, { mode });
  await rename(`${path}.new`, path);
}
async function keptPair(folder: string, name: string): Promise<Pair | null> {
  const [certificate, key] = [join(folder, `${name}.crt`), join(folder, `${name}.key`)];
  if (!existsSync(certificate) || !existsSync(key)) return null;
  return { certificate: await readFile(certificate, 'utf8'), key: await readFile(key, 'utf8') };
}
async function keepPair(folder: string, name: string, pair: Pair): Promise<Pair> {
  await keep(join(folder, `${name}.key`), pair.key, 0o600);
  await keep(join(folder, `${name}.crt`), pair.certificate, 0o644);
  return pair;
}

/** Addresses of this machine on its networks, in figures; those that hold on one wire only are left out. */
export const ownAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((found) => found ?? [])
    .filter(({ internal, address }) => !internal && !address.startsWith('fe80:') && !address.startsWith('169.254.'))
    .map(({ address }) => address);

/** Names under which this machine is called on its network. */
export function ownNames(): string[] {
  const name = hostname().toLowerCase();
  return name === '' || name === 'localhost' ? [] : name.includes('.') ? [name] : [name, `${name}.local`];
}

/**
 * The shop's own authority and a certificate for this machine, made at the first start and kept in the data folder; the
 * certificate is made anew when the machine has other addresses or it ends soon, the authority never.
 * @param more names beside the machine's own that the certificate shall hold
 */
export async function ownTls(dataFolder: string, shop: string, more: readonly string[], now: Date): Promise<ServerTls> {
  const folder = join(dataFolder, 'tls');
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const authority =
    (await keptPair(folder, 'authority')) ??
    (await keepPair(folder, 'authority', await makeAuthority(`Fair Watt of ${shop}`, now)));
  const names = [...new Set([...ownNames(), ...more, 'localhost', '127.0.0.1', ...ownAddresses()])];
  const kept = await keptPair(folder, 'server');
  const pair =
    kept !== null && stillDoes(kept.certificate, names, now)
      ? kept
      : await keepPair(folder, 'server', await makeServerCertificate(authority, names, now));
  return {
    pair,
    root: { certificate: authority.certificate, fingerprint: await fingerprintOf(authority.certificate) },
  };
}

/** A certificate that the shop has from elsewhere. @throws in words when a file is not there */
export async function givenTls(certificatePath: string, keyPath: string): Promise<ServerTls> {
  const read = (path: string, what: string) =>
    readFile(path, 'utf8').catch((error: unknown) => {
      const why =
        error instanceof Error && 'code' in error && error.code === 'ENOENT' ? 'is not there' : 'cannot be read';
      throw new Error(`${what}, ${path}, ${why}`);
    });
  return {
    pair: {
      certificate: await read(certificatePath, 'The certificate of FAIRWATT_TLS_CERT'),
      key: await read(keyPath, 'The key of FAIRWATT_TLS_KEY'),
    },
    root: null,
  };
}
