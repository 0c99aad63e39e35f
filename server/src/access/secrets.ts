import { createHash, createHmac, randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';
import { readFile } from 'node:fs/promises';

/**
 * Cost of a guess, in the terms of RFC 7914: 2^15 blocks of 8, one lane; 32 MiB and some 80 ms on a bench's machine.
 */
const cost = { log2: 15, blockSize: 8, lanes: 1 };
const hashBytes = 32;

function derived(secret: string, salt: Buffer, options: ScryptOptions): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    scrypt(secret, salt, hashBytes, options, (error, key) => {
      if (error === null) resolve(key);
      else reject(error);
    });
  });
}
const optionsOf = (log2: number, blockSize: number, lanes: number): ScryptOptions => ({
  N: 2 ** log2,
  r: blockSize,
  p: lanes,
  maxmem: 256 * 2 ** log2 * blockSize,
});

const keyBytes = 32;

/**
 * How secrets are kept: by a salted, slow hash, and where there is one with a key that stands in no database and no
 * backup. A PIN of six digits is found from its hash in hours; without the key it is not found at all.
 */
export class Secrets {
  /** What a kept secret that can be looked at begins with, as patterns of SQL's LIKE; others are as good as none. */
  readonly readable: readonly string[];
  private readonly key: Buffer | null;
  private readonly head: string;
  private ofNobody: Promise<string> | null = null;

  /** @param key 32 bytes; null for none */
  constructor(key: Buffer | null) {
    if (key !== null && key.length !== keyBytes) throw new Error(`a key of secrets has ${keyBytes} bytes`);
    this.key = key;
    // Tells keys apart without telling one.
    const name = key === null ? '' : createHmac('sha256', key).update('name of this key').digest('hex').slice(0, 16);
    this.head = key === null ? 'scrypt' : `keyed-scrypt$${name}`;
    this.readable = [...new Set(['scrypt$%', `${this.head}$%`])];
  }

  private static plain(secret: string): string {
    return secret.normalize('NFKC');
  }
  private keyed(secret: string): string {
    const plain = Secrets.plain(secret);
    return this.key === null ? plain : createHmac('sha256', this.key).update(plain).digest('base64');
  }

  /** A secret as it is kept: `scrypt$LOG2N$R$P$SALT$HASH`, salt and hash in base64; `keyed-scrypt$KEY$…` by a key. */
  async hash(secret: string): Promise<string> {
    const salt = randomBytes(16);
    const { log2, blockSize, lanes } = cost;
    const hash = await derived(this.keyed(secret), salt, optionsOf(log2, blockSize, lanes));
    return [this.head, log2, blockSize, lanes, salt.toString('base64'), hash.toString('base64')].join('$');
  }

  /** Whether a secret is the one that is kept. @throws when what is kept has another form, or was kept by another key */
  async is(secret: string, kept: string): Promise<boolean> {
    const head = [this.head, 'scrypt'].find((one) => kept.startsWith(`${one}$`));
    if (head === undefined) throw new Error('a kept secret has no form that is known here');
    const [log2, blockSize, lanes, salt, hash] = kept.slice(head.length + 1).split('$');
    if (salt === undefined || hash === undefined) throw new Error('a kept secret has no form that is known here');
    const typed = head === 'scrypt' ? Secrets.plain(secret) : this.keyed(secret);
    const options = optionsOf(Number(log2), Number(blockSize), Number(lanes));
    return timingSafeEqual(await derived(typed, Buffer.from(salt, 'base64'), options), Buffer.from(hash, 'base64'));
  }

  /** Whether a secret would be kept otherwise by now, as one from before there was a key. */
  isOld(kept: string): boolean {
    return !kept.startsWith(`${this.head}$`);
  }

  /** Takes as long as looking at a secret takes, so that nobody learns from the time which names are here. */
  async asIfLooked(secret: string): Promise<void> {
    this.ofNobody ??= this.hash('nobody');
    await this.is(secret, await this.ofNobody);
  }
}

/**
 * Secrets by the key of a file, which holds it in base64.
 * @param path null or empty for none @throws in words when the file cannot be read or holds no key
 */
export async function secretsBy(path: string | null): Promise<Secrets> {
  if (path === null || path === '') return new Secrets(null);
  const text = await readFile(path, 'utf8').catch((error: unknown) => {
    throw new Error(`The key of the secrets cannot be read: ${error instanceof Error ? error.message : String(error)}`);
  });
  const key = Buffer.from(text.trim(), 'base64');
  if (key.length !== keyBytes) throw new Error(`${path} holds no key of secrets: 32 bytes in base64`);
  return new Secrets(key);
}

/** A key for a new file, in base64. */
export const newSecretsKey = (): string => randomBytes(keyBytes).toString('base64');

/** Letters and digits that are not taken for one another when read aloud or copied by hand. */
const readable = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';

/** A one-time code of ten letters and digits: 50 bits. */
export const oneTimeCode = (): string => Array.from(randomBytes(10), (byte) => readable[byte % 32]).join('');
export const asRead = (code: string): string => `${code.slice(0, 5)}-${code.slice(5)}`;

/** A token of 256 bits for a device, and what is kept of it: it is long and random, so a plain hash does. */
export const newToken = (): string => randomBytes(32).toString('base64url');
export const plainHash = (token: string): string => createHash('sha256').update(token).digest('hex');

/** What is kept of a one-time code: salted and slow, since it is short; without a key, since consoles make them too. */
const codes = new Secrets(null);
export const hashCode = (code: string): Promise<string> => codes.hash(code);
export const isCode = (code: string, kept: string): Promise<boolean> => codes.is(code, kept);
