import { existsSync, linkSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { newSecretsKey, secretsBy, type Secrets } from '@fairwatt/server/administration';
import { dataDirectory } from './paths.ts';

const ownPath = join(dataDirectory, 'secrets.key');

/**
 * The file of the key by which secrets of this data folder's shops are kept, made when there is none and readable by
 * its user alone. It is in no backup: who finds one finds no PIN by it.
 */
export function secretsKeyPath(): string {
  const given = process.env['FAIRWATT_SECRETS_KEY'] ?? '';
  if (given !== '') return given;
  if (!existsSync(ownPath)) {
    mkdirSync(dataDirectory, { recursive: true });
    // Whole under its name at once, and never over one that another command made meanwhile.
    const made = `${ownPath}.${process.pid}`;
    writeFileSync(made, `${newSecretsKey()}\n`, { mode: 0o600 });
    try {
      linkSync(made, ownPath);
    } catch (error) {
      if (!existsSync(ownPath)) throw error;
    } finally {
      rmSync(made);
    }
  }
  return ownPath;
}

/** Secrets of this data folder's shops, as its servers keep them. */
export const ownSecrets = (): Promise<Secrets> => secretsBy(secretsKeyPath());
