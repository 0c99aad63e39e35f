import { useState } from 'react';
import { Button, Input } from 'antd';
import { dayText, moneyText } from '@fairwatt/core';
import type { ImportReport, SupplySummary } from '@fairwatt/contract';
import {
  problemOf,
  useFetchPricesMutation,
  usePriceFeedQuery,
  useSetPriceFeedMutation,
  useShopQuery,
} from '../app/api.ts';
import { useMay } from '../access/use-may.ts';
import { useAppSelector } from '../app/store.ts';
import { dayAndTime } from '../controls/clock.ts';
import { looks } from '../looks/looks.ts';
import { RowImport } from './row-import.tsx';
import { Sheet } from '../controls/sheet.tsx';
import { signs } from '../controls/signs.tsx';
import styles from './prices-panel.module.css';

/** What the last fetching came to. */
function Taken({ report }: { readonly report: ImportReport }) {
  return (
    <p role="status" data-feed="taken">
      {report.updated} prices changed, {report.same} as they were, {report.known} not of this shop, {report.refused}{' '}
      refused
      {report.refused === 0
        ? ''
        : `: ${report.named
            .filter((row) => row.result === 'refused')
            .slice(0, 3)
            .map((row) => `row ${row.row} ${row.errors[0]?.message ?? ''}`)
            .join('; ')}`}
      .
    </p>
  );
}

/** Prices with their day, from a supplier's list: fetched from an address, or read from a file. */
export function PricesPanel({ supplies }: { readonly supplies: readonly SupplySummary[] }) {
  const technician = useAppSelector((state) => state.session.technician);
  const shop = useShopQuery();
  const owner = useMay('own');
  const feed = usePriceFeedQuery();
  const [set, setting] = useSetPriceFeedMutation();
  const [fetchNow, fetching] = useFetchPricesMutation();
  const [draft, setDraft] = useState<string | null>(null);
  const url = draft ?? feed.data?.url ?? '';
  const fetchedAt = feed.data?.fetchedAt ?? null;
  if (draft !== null && draft === feed.data?.url) setDraft(null);
  const currencies = new Set(supplies.map((model) => model.price.currency));
  const oldest = [...supplies].sort((a, b) => (a.price.asOf ?? '').localeCompare(b.price.asOf ?? ''));
  return (
    <>
      <div className={`${looks.rowActions} ${looks.onFoot} ${looks.above}`}>
        <label className={`${looks.field} ${styles.address}`}>
          <span className={looks.name}>Address of a supplier's price list (CSV)</span>
          <Input
            className={looks.fig}
            value={url}
            disabled={!owner}
            placeholder="http://192.168.1.9:8080/price-list.csv"
            onChange={(event) => setDraft(event.target.value)}
          />
        </label>
        {draft !== null && draft !== feed.data?.url && (
          <Button
            disabled={!owner || setting.isLoading}
            // What was typed stays until the shop's own answer says the same, so that the old address never shows
            // between.
            onClick={() => void set({ by: technician ?? '', url: draft })}
          >
            Keep the address
          </Button>
        )}
        <Button
          icon={signs.again}
          data-primary
          disabled={technician === null || feed.data == null || fetching.isLoading}
          onClick={() => void fetchNow({ by: technician ?? '' })}
        >
          {fetching.isLoading ? 'Fetching …' : 'Fetch prices now'}
        </Button>
        <RowImport path="/supplies/prices" label="Read a price list" name="Price list" what="Row" />
      </div>
      {setting.isError && (
        <p className={looks.errorText} role="alert">
          {[
            problemOf(setting.error).title,
            ...(problemOf(setting.error).errors ?? []).map((error) => error.message),
          ].join(': ')}
        </p>
      )}
      {fetching.isError && (
        <p className={looks.errorText} role="alert" data-feed="failed">
          {problemOf(fetching.error).title}. Every price is as it was.
        </p>
      )}
      {fetching.data !== undefined && !fetching.isError && <Taken report={fetching.data} />}
      <p className={`${looks.quiet} ${looks.above}`}>
        {fetchedAt === null ? 'Nothing was fetched yet.' : `Last fetched ${dayAndTime(fetchedAt)}.`}{' '}
        {currencies.size > 1
          ? `Prices stand in ${[...currencies].join(' and ')}; only those in ` +
            `${shop.data?.settings.currency ?? ''} are compared.`
          : ''}
      </p>
      <Sheet
        rows={oldest.slice(0, 200)}
        rowKey={(model) => model.id}
        columns={[
          { head: 'Supply', cell: (model) => model.name, className: looks.strongly },
          { head: 'Price', className: looks.num, cell: (model) => moneyText(model.price.minor, model.price.currency) },
          { head: 'Of', cell: (model) => (model.price.asOf === null ? 'day not noted' : dayText(model.price.asOf)) },
        ]}
      />
    </>
  );
}
