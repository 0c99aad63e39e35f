import { useState } from 'react';
import { Button, Select } from 'antd';
import { useSearchParams } from 'react-router';
import { crossingWordText, plugName, spareVerdict } from '@fairwatt/core';
import type { BagCable, CableBags, SupplySummary } from '@fairwatt/contract';
import { problemOf, useCableBagsQuery, useSuppliesQuery } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { Choice } from '../controls/choice.tsx';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { looks, verdictLook } from '../looks/looks.ts';
import { AdaptersPanel } from './adapters-panel.tsx';
import { BagCableDialog } from './bag-cable-dialog.tsx';
import { CrossingPanel, crossingMark } from './crossing-panel.tsx';
import { PinoutsPanel } from './pinouts-panel.tsx';
import { signs } from '../controls/signs.tsx';
import styles from './cable-bags-page.module.css';
import bagList from './bag-list.module.css';

const shelves = [
  ['cables', 'Spare cables'],
  ['adapters', 'Adapters and extensions'],
  ['sockets', 'Sockets of supplies'],
] as const;

/** Spare modular cables, and whether each may go between a supply and a device: safe, harmful, or to be probed. */
export default function CableBagsPage() {
  const bags = useCableBagsQuery();
  const supplies = useSuppliesQuery();
  const technician = useAppSelector((state) => state.session.technician);
  const [params, setParams] = useSearchParams();
  const shelf = shelves.find(([value]) => value === params.get('shelf'))?.[0] ?? 'cables';
  const [editing, setEditing] = useState<BagCable | 'new' | null>(null);
  if (bags.data === undefined || supplies.data === undefined)
    return (
      <div className={looks.page}>
        {bags.isError ? <Empty title={problemOf(bags.error).title} /> : <Waiting>Fetching the cable bags …</Waiting>}
      </div>
    );
  const modular = supplies.data.filter((model) => model.label.modular !== 'fixed');
  return (
    <div className={looks.page}>
      <div className={looks.pageHead}>
        <h1>Cable bags</h1>
        <span className={looks.quiet}>
          A cable from another supply is never trusted, not even of the same maker: its wires are known, or probed.
        </span>
        {shelf === 'cables' && (
          <Button
            icon={signs.add}
            className={looks.atEnd}
            disabled={technician === null}
            onClick={() => setEditing('new')}
          >
            Enter a cable
          </Button>
        )}
      </div>
      <div className={looks.above}>
        <Choice
          label="What is in the bags"
          value={shelf}
          options={shelves.map(([value, name]) => ({ value, label: name }))}
          onPick={(value) => setParams(value === 'cables' ? {} : { shelf: value }, { replace: true })}
        />
      </div>
      {shelf === 'adapters' && <AdaptersPanel adapters={bags.data.adapters} />}
      {shelf === 'sockets' && <PinoutsPanel pinouts={bags.data.pinouts} supplies={modular} />}
      {shelf === 'cables' && <SpareCables bags={bags.data} modular={modular} onEdit={setEditing} />}
      {editing !== null && <BagCableDialog was={editing === 'new' ? null : editing} onClose={() => setEditing(null)} />}
    </div>
  );
}

/** The cables of the bags, each judged on the supply that is picked. */
function SpareCables({
  bags,
  modular,
  onEdit,
}: {
  readonly bags: CableBags;
  readonly modular: readonly SupplySummary[];
  readonly onEdit: (cable: BagCable) => void;
}) {
  const [params, setParams] = useSearchParams();
  const [picked, setPicked] = useState<string | null>(params.get('cable'));
  const isKnown = (modelId: string) => bags.pinouts.some(({ supplies }) => supplies.includes(modelId));
  const model =
    modular.find((item) => item.id === params.get('on')) ?? modular.find((item) => isKnown(item.id)) ?? modular[0];
  const cable = bags.cables.find((item) => item.id === picked) ?? bags.cables[0];
  const verdictOf = (item: BagCable) => spareVerdict(bags, item, model?.id ?? '');
  if (cable === undefined)
    return (
      <Empty title="No spare cables yet">
        What a job leaves over goes here: label it, say what it came with, and draw its wires or probe them.
      </Empty>
    );
  return (
    <div className={styles.bags}>
      <div>
        <label className={`${looks.field} ${looks.above}`}>
          <span className={looks.name}>On this supply</span>
          <Select
            showSearch={{ optionFilterProp: 'label' }}
            aria-label="On this supply"
            value={model?.id ?? ''}
            onChange={(id) => setParams({ on: id }, { replace: true })}
            options={modular.map(({ id, name }) => ({
              value: id,
              label: isKnown(id) ? name : `${name} (sockets not known)`,
            }))}
          />
        </label>
        <ul className={bagList.bagList}>
          {bags.cables.map((item) => (
            <li key={item.id}>
              <BagLine
                cable={item}
                word={verdictOf(item).word}
                isPicked={item === cable}
                onPick={() => setPicked(item.id)}
              />
            </li>
          ))}
        </ul>
      </div>
      {model !== undefined && (
        <CrossingPanel
          key={`${cable.id} ${model.id}`}
          cable={cable}
          model={model}
          verdict={verdictOf(cable)}
          onChange={() => onEdit(cable)}
        />
      )}
    </div>
  );
}

function BagLine({
  cable,
  word,
  isPicked,
  onPick,
}: {
  readonly cable: BagCable;
  readonly word: keyof typeof crossingMark;
  readonly isPicked: boolean;
  readonly onPick: () => void;
}) {
  return (
    <Button
      type="text"
      className={looks.plain}
      aria-pressed={isPicked}
      data-bag={cable.label}
      data-word={word}
      onClick={onPick}
    >
      <span className={`${looks.tag} ${looks.small}`}>{cable.label}</span>
      <span className={looks.what}>
        {cable.plugs.map((plug) => plugName[plug.kind]).join(' + ')}
        <span className={`${looks.quiet} ${looks.blockNote}`}>
          {cable.place === '' ? 'place not noted' : cable.place}, came with{' '}
          {cable.cameWith === '' ? 'nobody knows what' : cable.cameWith}
        </span>
      </span>
      <span className={verdictLook(crossingMark[word])}>{crossingWordText[word]}</span>
    </Button>
  );
}
