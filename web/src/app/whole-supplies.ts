import { boundToBe, type SupplyModel } from '@fairwatt/core';
import type { SupplyKits, SupplySummary } from '@fairwatt/contract';

/** Between the two answers somebody may have changed a kit; once more is enough, unless it goes on. */
const tries = 3;

/**
 * Supplies with their kits; alike kits are one object. Null where a kit is not among those that came.
 */
export function withKits(summaries: readonly SupplySummary[], kits: SupplyKits): SupplyModel[] | null {
  const whole: SupplyModel[] = [];
  for (const summary of summaries) {
    if (!Object.hasOwn(kits, summary.kit)) return null;
    whole.push({ ...summary, kit: boundToBe(kits[summary.kit], `kit ${summary.kit}`) });
  }
  return whole;
}

type Fetched<Failure> =
  { readonly data: unknown; readonly error?: undefined } | { readonly data?: undefined; readonly error: Failure };

type Get<Failure> = (path: string) => PromiseLike<Fetched<Failure>>;
type Answered<Data, Failure> =
  { readonly data: Data; readonly error?: undefined } | { readonly data?: undefined; readonly error: Failure };

/**
 * Fetches the shop's supplies and their kits, which travel apart: a price or a unit on the shelf changes nothing of a
 * kit, and many supplies share one.
 * @param get asks the server for a path
 * @param torn what is answered where the two do not go together however often they are asked for
 */
export async function fetchWhole<Failure>(get: Get<Failure>, torn: Failure): Promise<Answered<SupplyModel[], Failure>> {
  for (let tried = 0; tried < tries; tried += 1) {
    const summaries = await get('/supplies');
    if (summaries.error !== undefined) return { error: summaries.error };
    const kits = await get('/supplies/kits');
    if (kits.error !== undefined) return { error: kits.error };
    const data = withKits(summaries.data as SupplySummary[], kits.data as SupplyKits);
    if (data !== null) return { data };
  }
  return { error: torn };
}

/**
 * Fetches one supply with its kit; where that does not come, out of all of them, which a browser may have kept.
 * @returns what went wrong with the one where it is not among them either
 */
export async function fetchOne<Failure>(
  id: string,
  get: Get<Failure>,
  torn: Failure,
): Promise<Answered<SupplyModel, Failure>> {
  const one = await get(`/supplies/models/${encodeURIComponent(id)}`);
  if (one.error === undefined) return { data: one.data as SupplyModel };
  const all = await fetchWhole(get, torn);
  const kept = all.data?.find((model) => model.id === id);
  return kept === undefined ? { error: one.error } : { data: kept };
}
