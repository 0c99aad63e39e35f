import { z } from 'zod';
import type pg from 'pg';
import { isPrivateAddress, priceSchema, type ImportReport, type ImportRow } from '@fairwatt/contract';
import { many, maybeOne, transaction, type Queryable } from '../database/query.ts';
import { deadline } from '../deadline.ts';
import { instant, number, orNull, text } from '../database/read.ts';
import { checkEntries, csvEntries, reportOf } from './import.ts';

const priceRow = z.strictObject({ id: z.string().min(1, 'must not be empty').max(64), price: priceSchema });
export const priceColumns = ['id', 'price', 'currency', 'date'] as const;

/** What a row of a price list says; the price is read as a figure with point or comma. */
function priceFromCells(cells: Readonly<Record<string, string | undefined>>): unknown {
  const figure = (cells['price'] ?? '').trim();
  const value = Number(figure.replace(',', '.'));
  return {
    id: (cells['id'] ?? '').trim(),
    price: {
      minor: figure === '' || !Number.isFinite(value) ? figure : Math.round(value * 100),
      currency: (cells['currency'] ?? '').trim(),
      asOf: (cells['date'] ?? '').trim(),
    },
  };
}

/**
 * Takes the prices of a list for the supplies that are here: whole rows, in one transaction. Rows of supplies that are
 * not here are counted as known to nobody and left; a price older than the one that is here is left as well.
 */
export async function takePrices(db: Queryable, list: string, dryRun: boolean): Promise<ImportReport> {
  const { good, refused } = checkEntries(csvEntries(list, priceColumns, priceFromCells), priceRow);
  const here = new Map(
    await many(
      db,
      'select id, price_minor, currency, price_as_of from supply_model',
      [],
      (row) =>
        [
          text(row, 'id'),
          {
            minor: number(row, 'price_minor'),
            currency: text(row, 'currency'),
            asOf: orNull(text)(row, 'price_as_of'),
          },
        ] as const,
    ),
  );
  const rows: ImportRow[] = [...refused];
  const changed: { id: string; minor: number; currency: string; asOf: string | null }[] = [];
  for (const { row, name, item } of good) {
    const was = here.get(item.id);
    const { minor, currency, asOf } = item.price;
    if (was === undefined) {
      rows.push({ row, name, result: 'known', errors: [{ path: 'id', message: 'no supply of this shop' }] });
      continue;
    }
    if (was.asOf !== null && asOf !== null && asOf < was.asOf) {
      rows.push({
        row,
        name,
        result: 'same',
        errors: [{ path: 'date', message: `older than the price of ${was.asOf}` }],
      });
      continue;
    }
    const same = was.minor === minor && was.currency === currency && was.asOf === asOf;
    rows.push({ row, name, result: same ? 'same' : 'updated', errors: [] });
    if (!same) changed.push({ id: item.id, minor, currency, asOf });
  }
  if (!dryRun && changed.length > 0) {
    await db.query(
      'update supply_model set price_minor = new.minor, currency = new.currency, price_as_of = ' +
        'new.as_of from unnest($1::text[], $2::bigint[], $3::text[], $4::date[]) as new (id, ' +
        'minor, currency, as_of) where supply_model.id = new.id',
      [
        changed.map((item) => item.id),
        changed.map((item) => item.minor),
        changed.map((item) => item.currency),
        changed.map((item) => item.asOf),
      ],
    );
  }
  return reportOf(rows, dryRun);
}

/** Where the price list is fetched, and what came of it last. */
export interface PriceFeed {
  readonly url: string;
  readonly fetchedAt: string | null;
  readonly report: unknown;
}

export const readPriceFeed = (db: Queryable): Promise<PriceFeed | null> =>
  maybeOne(db, 'select * from price_feed', [], (row) => ({
    url: text(row, 'url'),
    fetchedAt: orNull(instant)(row, 'fetched_at'),
    report: row['report'] ?? null,
  }));

export async function writePriceFeed(db: Queryable, url: string): Promise<void> {
  await db.query('insert into price_feed (url) values ($1) on conflict (only_row) do update set url = $1', [url]);
}

/** http at a loopback or private address in figures, as for instruments. */
export function isPrivateUrl(value: string): boolean {
  if (!URL.canParse(value)) return false;
  const url = new URL(value);
  return url.protocol === 'http:' && url.username === '' && isPrivateAddress(url.hostname.replace(/^\[|\]$/g, ''));
}

/** What went wrong with a supplier's feed. */
export class FeedFailure extends Error {}

const longestList = 20_000_000;

/** The list as text. @throws FeedFailure when it is silent, refuses, redirects, is no CSV or is far too long */
export async function fetchPriceList(url: string, timeoutMilliseconds: number): Promise<string> {
  let response: Response;
  const { signal, met } = deadline(timeoutMilliseconds);
  try {
    response = await fetch(url, { redirect: 'error', signal, headers: { accept: 'text/csv' } });
    if (!response.ok) throw new FeedFailure(`the feed answered ${response.status}`);
    if (!/^text\/(csv|plain)\b/.test(response.headers.get('content-type') ?? ''))
      throw new FeedFailure('the feed did not answer with a CSV');
    const chunks: Uint8Array[] = [];
    let length = 0;
    for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>) {
      length += chunk.length;
      if (length > longestList) throw new FeedFailure('the list is far too long');
      chunks.push(chunk);
    }
    return Buffer.concat(chunks).toString('utf8');
  } catch (error) {
    if (error instanceof FeedFailure) throw error;
    throw new FeedFailure(
      signal.aborted
        ? `the feed did not answer within ${timeoutMilliseconds / 1000} s`
        : 'the feed cannot be reached, or broke off',
    );
  } finally {
    met();
  }
}

/** Fetches the list and takes its prices. @throws FeedFailure with everything left as it was */
export async function fetchPrices(
  pool: pg.Pool,
  feed: PriceFeed,
  at: string,
  timeoutMilliseconds = 8000,
): Promise<ImportReport> {
  const list = await fetchPriceList(feed.url, timeoutMilliseconds);
  return transaction(pool, async (db) => {
    const report = await takePrices(db, list, false);
    await db.query('update price_feed set fetched_at = $1, report = $2', [
      at,
      JSON.stringify({ ...report, named: report.named.slice(0, 20) }),
    ]);
    return report;
  });
}
