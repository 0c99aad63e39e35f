import { readFile } from 'node:fs/promises';
import { z } from 'zod';

/** A shop's name is a label of the host name under which it is answered, such as `quay` in `quay.localhost`. */
export const shopNameSchema = z
  .string()
  .regex(
    /^[a-z]([a-z0-9-]{0,28}[a-z0-9])?$/,
    'is made of small letters, figures and hyphens, at most 30, and begins with a letter',
  );

const entrySchema = z.strictObject({
  name: shopNameSchema,
  /** The address of its database where that is elsewhere; null in the cluster of the data folder. */
  place: z.string().min(1).nullable(),
  /** A shop that is shut is being moved or restored: nobody is answered until it is done. */
  state: z.enum(['open', 'shut']),
});
export type ShopEntry = z.infer<typeof entrySchema>;

/** The shops that one process serves, as the command keeps them in the data folder. */
export const registrySchema = z.strictObject({
  format: z.literal('fairwatt-shops'),
  version: z.literal(1),
  shops: z
    .array(entrySchema)
    .refine((shops) => new Set(shops.map(({ name }) => name)).size === shops.length, 'a name stands there twice'),
});

/** Reads them; none where there is no such file. @throws when it is not one */
export async function readShops(path: string): Promise<readonly ShopEntry[]> {
  const text = await readFile(path, 'utf8').catch((error: unknown) => {
    if (error instanceof Error && 'code' in error && error.code === 'ENOENT') return null;
    throw error;
  });
  return text === null ? [] : registrySchema.parse(JSON.parse(text)).shops;
}

/** The database of a shop in the cluster of the data folder. */
export const databaseOfShop = (name: string): string => `fairwatt_shop_${name.replaceAll('-', '_')}`;

/**
 * The address of a shop's database.
 * @param ownUrl any database of the cluster of the data folder, as whoever wants to enter
 */
export function urlOfShop({ name, place }: ShopEntry, ownUrl: string): string {
  if (place !== null) return place;
  const url = new URL(ownUrl);
  url.pathname = `/${databaseOfShop(name)}`;
  return url.href;
}

/**
 * The shop that a request is for: the label before one of the hosts under which the shops are answered.
 * @param host a host name in small letters, without its port
 */
export function shopOfHost(host: string, bases: readonly string[]): string | null {
  for (const base of bases)
    if (host.endsWith(`.${base}`)) {
      const label = host.slice(0, -base.length - 1);
      if (shopNameSchema.safeParse(label).success) return label;
    }
  return null;
}
