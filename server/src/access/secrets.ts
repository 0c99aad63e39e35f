import { createHash, randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';

/**
 * Cost of a guess, in the terms of RFC 7914: 2^15 blocks of 8, one lane; 32 MiB and some 80 ms on a bench's machine.
 */
const cost = { log2: 15, blockSize: 8, lanes: 1 };
const hashBytes = 32;

function derived(secret: string, salt: Buffer, options: ScryptOptions): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    scrypt(secret.normalize('NFKC'), salt, hashBytes, options, (error, key) => {
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

/** A secret as it is kept: `scrypt$LOG2N$R$P$SALT$HASH`, salt and hash in base64. */
export async function hashSecret(secret: string): Promise<string> {
  const salt = randomBytes(16);
  const key = await derived(secret, salt, optionsOf(cost.log2, cost.blockSize, cost.lanes));
  return ['scrypt', cost.log2, cost.blockSize, cost.lanes, salt.toString('base64'), key.toString('base64')].join('$');
}

/** Whether a secret is the one that is kept. @throws when what is kept has another form */
export async function isSecret(secret: string, kept: string): Promise<boolean> {
  const [kind, log2, blockSize, lanes, salt, hash] = kept.split('$');
  if (kind !== 'scrypt' || salt === undefined || hash === undefined) throw new Error('a kept secret has no known form');
  const options = optionsOf(Number(log2), Number(blockSize), Number(lanes));
  return timingSafeEqual(await derived(secret, Buffer.from(salt, 'base64'), options), Buffer.from(hash, 'base64'));
}

let ofNobody: Promise<string> | null = null;
/** Takes as long as looking at a secret takes, so that nobody learns from the time which names are here. */
export async function asIfLooked(secret: string): Promise<void> {
  ofNobody ??= hashSecret('nobody');
  await isSecret(secret, await ofNobody);
}

/** Letters and digits that are not taken for one another when read aloud or copied by hand. */
const readable = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';

/** A one-time code of ten letters and digits: 50 bits. */
export const oneTimeCode = (): string => Array.from(randomBytes(10), (byte) => readable[byte % 32]).join('');
export const asRead = (code: string): string => `${code.slice(0, 5)}-${code.slice(5)}`;

/**
 * A token of 256 bits for a device, and what is kept of tokens and codes: they are long and random, so a plain hash
 * does.
 */
export const newToken = (): string => randomBytes(32).toString('base64url');
export const plainHash = (token: string): string => createHash('sha256').update(token).digest('hex');
export const sameHash = (a: string, b: string): boolean =>
  a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));
