import 'reflect-metadata';
import { randomBytes, webcrypto } from 'node:crypto';
import { isIP } from 'node:net';
import * as x509 from '@peculiar/x509';

x509.cryptoProvider.set(webcrypto as unknown as Crypto);

const algorithm = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' } as const;
const day = 86_400_000;
const authorityDays = 3650;
/** Browsers take no longer one from an authority that was installed by hand. */
const serverDays = 397;
/** A certificate that ends sooner than this is made anew at a start. */
export const renewBeforeDays = 45;

/** A certificate with its private key, both in PEM. */
export interface Pair {
  readonly certificate: string;
  readonly key: string;
}

const serial = (): string => `00${randomBytes(15).toString('hex')}`;

async function keys(): Promise<CryptoKeyPair> {
  return await webcrypto.subtle.generateKey(algorithm, true, ['sign', 'verify']);
}
async function pemOf(key: CryptoKey): Promise<string> {
  const bytes = await webcrypto.subtle.exportKey('pkcs8', key);
  return x509.PemConverter.encode(bytes, 'PRIVATE KEY');
}
const keyOf = (pem: string): Promise<CryptoKey> =>
  webcrypto.subtle.importKey('pkcs8', x509.PemConverter.decodeFirst(pem), algorithm, true, ['sign']);

/** An authority of the shop's own, for ten years. It signs certificates of servers only, and no other authority. */
export async function makeAuthority(name: string, now: Date): Promise<Pair> {
  const pair = await keys();
  const certificate = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: `CN=${name.replace(/[,+="\\<>;#]/g, ' ')}`,
    notBefore: new Date(now.getTime() - day),
    notAfter: new Date(now.getTime() + authorityDays * day),
    signingAlgorithm: algorithm,
    keys: pair,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(pair.publicKey),
    ],
  });
  return { certificate: certificate.toString('pem'), key: await pemOf(pair.privateKey) };
}

/**
 * A certificate for a server under these names and addresses, signed by the authority.
 * @param names DNS names and addresses in figures; at least one
 */
export async function makeServerCertificate(authority: Pair, names: readonly string[], now: Date): Promise<Pair> {
  const [first] = names;
  if (first === undefined) throw new Error('a certificate needs a name');
  const issuer = new x509.X509Certificate(authority.certificate);
  const pair = await keys();
  const certificate = await x509.X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: `CN=${first}`,
    issuer: issuer.subject,
    notBefore: new Date(now.getTime() - day),
    notAfter: new Date(now.getTime() + serverDays * day),
    signingAlgorithm: algorithm,
    publicKey: pair.publicKey,
    signingKey: await keyOf(authority.key),
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension(
        names.map((value) => ({ type: isIP(value) === 0 ? ('dns' as const) : ('ip' as const), value })),
      ),
      await x509.AuthorityKeyIdentifierExtension.create(issuer.publicKey),
      await x509.SubjectKeyIdentifierExtension.create(pair.publicKey),
    ],
  });
  return { certificate: certificate.toString('pem'), key: await pemOf(pair.privateKey) };
}

/** What people compare: the SHA-256 of a certificate in pairs of hex digits. */
export async function fingerprintOf(certificate: string): Promise<string> {
  const digest = await new x509.X509Certificate(certificate).getThumbprint('SHA-256');
  return Buffer.from(digest)
    .toString('hex')
    .toUpperCase()
    .replace(/(..)(?=.)/g, '$1:');
}

/** The names and addresses that a certificate holds. */
export function namesIn(certificate: string): string[] {
  const held = new x509.X509Certificate(certificate).getExtension(x509.SubjectAlternativeNameExtension);
  return (held?.names.items ?? []).map(({ value }) => value);
}

/** Whether a certificate still does: it holds these names and does not end soon. */
export function stillDoes(certificate: string, names: readonly string[], now: Date): boolean {
  const { notAfter } = new x509.X509Certificate(certificate);
  const held = new Set(namesIn(certificate).map((name) => name.toLowerCase()));
  return (
    notAfter.getTime() - now.getTime() > renewBeforeDays * day && names.every((name) => held.has(name.toLowerCase()))
  );
}
