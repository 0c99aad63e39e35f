import { lazy, Suspense, useState } from 'react';
import { Button, Input } from 'antd';
import { useSearchParams } from 'react-router';
import { problemOf, useSuppliesQuery, useUnitsQuery } from '../app/api.ts';
import { beside } from '../controls/beside.tsx';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { looks } from '../looks/looks.ts';
import { OwnPartsPanel } from './own-parts-panel.tsx';
import { PricesPanel } from './prices-panel.tsx';
import { RowImport } from './row-import.tsx';
import { ShelfPanel } from './shelf-panel.tsx';
import { Choice } from '../controls/choice.tsx';
import { useWay } from '../controls/use-way.ts';
import type { Edited } from './supply-editor.tsx';
import { signs } from '../controls/signs.tsx';
import styles from './supplies-page.module.css';

const SupplyEditor = lazy(() => import('./supply-editor.tsx'));
const SupplyTable = beside(
  () => import('./supply-table.tsx'),
  () => <Waiting />,
);
const ways = [
  ['models', 'Models'],
  ['shelf', 'Shelf'],
  ['prices', 'Prices'],
  ['parts', 'Own parts'],
] as const;

/** What the shop can get and has: models with their kits, units on the shelf, prices, and its own parts. */
export default function SuppliesPage() {
  const supplies = useSuppliesQuery();
  const units = useUnitsQuery();
  const [params] = useSearchParams();
  const [way, setWay] = useWay(ways, 'models');
  const [search, setSearch] = useState('');
  const [open, setOpen] = useState<string | null>(null);
  const [editing, setEditing] = useState<Edited | null>(null);
  const shown = (supplies.data ?? []).filter((model) =>
    `${model.name} ${model.label.shape} ${model.label.ratingWatts} ${model.label.grade}`
      .toLowerCase()
      .includes(search.trim().toLowerCase()),
  );
  return (
    <div className={looks.page}>
      <div className={looks.pageHead}>
        <h1>Supplies</h1>
        <Choice
          label="Part of the shelf"
          value={way}
          options={ways.map(([value, name]) => ({ value: value, label: name }))}
          onPick={setWay}
        />
        <span className={looks.quiet}>
          {supplies.data?.length ?? 0} models, {(units.data ?? []).filter((unit) => unit.state !== 'used').length} units
        </span>
        {way === 'models' && (
          <>
            <label className={`${looks.field} ${styles.find}`}>
              <span className={looks.visuallyHidden}>Find a supply</span>
              <Input
                placeholder="Name, shape or watts"
                value={search}
                onChange={(event) => setSearch(event.target.value)}
              />
            </label>
            <FileActs onEnter={() => setEditing({ from: null, isNew: true })} />
          </>
        )}
      </div>
      {supplies.isError && supplies.data === undefined && <Empty title={problemOf(supplies.error).title} />}
      {supplies.isLoading && <Waiting>Fetching the supplies …</Waiting>}
      {way === 'shelf' && supplies.data !== undefined && (
        <ShelfPanel supplies={supplies.data} found={params.get('unit')} />
      )}
      {way === 'prices' && supplies.data !== undefined && <PricesPanel supplies={supplies.data} />}
      {way === 'parts' && <OwnPartsPanel />}
      {way === 'models' && supplies.data !== undefined && shown.length === 0 && (
        <Empty title={search === '' ? 'No supplies yet' : 'Nothing found'}>
          {search === ''
            ? 'Enter one, or import a file; demo/supplies.json shows how one looks.'
            : 'Look for a name, a shape or watts.'}
        </Empty>
      )}
      {way === 'models' && shown.length > 0 && (
        <SupplyTable
          supplies={shown}
          open={open}
          onOpen={(id) => setOpen(open === id ? null : id)}
          onEdit={({ id }, duplicate) => setEditing({ from: id, isNew: duplicate })}
        />
      )}
      {editing !== null && (
        <Suspense fallback={null}>
          <SupplyEditor {...editing} onClose={() => setEditing(null)} />
        </Suspense>
      )}
    </div>
  );
}

/** What is entered by hand, read from a file, or written to one. */
function FileActs({ onEnter }: { readonly onEnter: () => void }) {
  return (
    <div className={`${looks.rowActions} ${looks.atEnd}`}>
      <Button icon={signs.add} onClick={onEnter}>
        Enter a supply
      </Button>
      <RowImport path="/supplies/import" label="Import" name="Supplies file" what="Supply" />
      <Button icon={signs.save} href="/api/supplies/export?format=csv" download>
        CSV
      </Button>
      <Button icon={signs.save} href="/api/supplies/export?format=json" download>
        JSON
      </Button>
    </div>
  );
}
