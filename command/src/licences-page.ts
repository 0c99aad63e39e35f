import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { root } from './paths.ts';

const lockSchema = z.object({
  packages: z.record(
    z.string(),
    z.object({
      version: z.string().optional(),
      license: z.string().optional(),
      dev: z.boolean().optional(),
      link: z.boolean().optional(),
    }),
  ),
});

/** What a package says of itself in a file only. */
const saidInFile: Readonly<Record<string, string>> = { 'png-js': 'MIT' };

interface Shipped {
  readonly name: string;
  readonly version: string;
  readonly licence: string;
}

/** Every package that ships, by the lock file: what is there for building and testing only is left out. */
export function shippedPackages(): Shipped[] {
  const { packages } = lockSchema.parse(JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8')));
  const found = Object.entries(packages).flatMap(([path, { version = '', license, dev, link }]): Shipped[] => {
    const name = path.split('node_modules/').at(-1) ?? '';
    if (!path.includes('node_modules/') || dev === true || link === true) return [];
    return [{ name, version, licence: license ?? saidInFile[name] ?? 'unknown' }];
  });
  const byName = new Map(found.map((one) => [`${one.name}@${one.version}`, one]));
  return [...byName.values()].sort((a, b) => (`${a.name}@${a.version}` < `${b.name}@${b.version}` ? -1 : 1));
}

/** Licences of what ships, as a page in Markdown. */
export function licencesPage(): string {
  const shipped = shippedPackages();
  const licences = [...new Set(shipped.map(({ licence }) => licence))].sort();
  return [
    '# Licences of what ships',
    '',
    `Made from \`package-lock.json\` by \`npm run formats\`: ${shipped.length} packages. Fair ` +
      `Watt's own stands in [LICENSE](../LICENSE). PostgreSQL (PostgreSQL licence) and, for ` +
      `tests, Chromium come from Debian's packages and do not ship.`,
    '',
    ...licences.flatMap((licence) => {
      const under = shipped.filter((one) => one.licence === licence);
      return [`## ${licence}`, '', under.map(({ name, version }) => `${name} ${version}`).join(', '), ''];
    }),
  ].join('\n');
}
