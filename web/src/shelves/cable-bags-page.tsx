import { useState } from 'react';
import { Button, Select } from 'antd';
import { Link, useSearchParams } from 'react-router';
import {
  codedAgainstPrint,
  crossedPinText,
  crossingSentence,
  crossingWordText,
  endFamily,
  faceOfPlug,
  spareVerdict,
  type Crossing,
  plugName,
} from '@fairwatt/core';
import type { BagCable } from '@fairwatt/contract';
import {
  problemOf,
  useCableBagsQuery,
  useChangeProofMutation,
  useRemoveBagCableMutation,
  useShopQuery,
  useSuppliesQuery,
} from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { calendarDay } from '../controls/clock.ts';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { ConnectorFace } from '../drawings/connector-face.tsx';
import { AdaptersPanel } from './adapters-panel.tsx';
import { BagCableDialog } from './bag-cable-dialog.tsx';
import { PinoutsPanel } from './pinouts-panel.tsx';
import { Choice } from '../controls/choice.tsx';
import { RemoveButton } from '../controls/remove-button.tsx';

const shelves = [
  ['cables', 'Spare cables'],
  ['adapters', 'Adapters and extensions'],
  ['sockets', 'Sockets of supplies'],
] as const;
const mark: Record<Crossing['word'], string> = {
  safe: 'pass',
  incomplete: 'marginal',
  unknown: 'cannot-tell',
  harmful: 'fail',
};
const pinMark = { right: '', short: '✕', 'wrong-voltage': '✕', misplaced: '✕', missing: '–', unknown: '?' } as const;

/** Spare modular cables, and whether each may go between a supply and a device: safe, harmful, or to be probed. */
export default function CableBagsPage() {
  const bags = useCableBagsQuery();
  const supplies = useSuppliesQuery();
  const shop = useShopQuery();
  const technician = useAppSelector((state) => state.session.technician);
  const [prove, proving] = useChangeProofMutation();
  const [remove] = useRemoveBagCableMutation();
  const [params, setParams] = useSearchParams();
  const [picked, setPicked] = useState<string | null>(params.get('cable'));
  const shelf = shelves.find(([value]) => value === params.get('shelf'))?.[0] ?? 'cables';
  const modelId = params.get('on');
  const setModel = (id: string) => setParams({ on: id }, { replace: true });
  const [editing, setEditing] = useState<BagCable | 'new' | null>(null);
  if (bags.data === undefined || supplies.data === undefined)
    return (
      <div className="page">
        {bags.isError ? <Empty title={problemOf(bags.error).title} /> : <Waiting>Fetching the cable bags …</Waiting>}
      </div>
    );
  const { cables, pinouts } = bags.data;
  const modular = supplies.data.filter((model) => model.label.modular !== 'fixed');
  const isKnown = (modelId: string) => pinouts.some(({ supplies: of }) => of.includes(modelId));
  const model =
    modular.find((item) => item.id === modelId) ??
    modular.find((item) => pinouts.some((pinout) => pinout.supplies.includes(item.id))) ??
    modular[0];
  const cable = cables.find((item) => item.id === picked) ?? cables[0];
  const verdictOf = (item: BagCable) => spareVerdict(bags.data!, item, model?.id ?? '');
  const shown = cable === undefined ? null : verdictOf(cable);
  const coded = cable === undefined || shown === null ? '' : codedAgainstPrint(cable.codedWatts, shown.code);
  const person = (id: string) => shop.data?.technicians.find((one) => one.id === id)?.name ?? id;
  return (
    <div className="page">
      <div className="page-head">
        <h1>Cable bags</h1>
        <span className="quiet">
          A cable from another supply is never trusted, not even of the same maker: its wires are known, or probed.
        </span>
        {shelf === 'cables' && (
          <Button style={{ marginLeft: 'auto' }} disabled={technician === null} onClick={() => setEditing('new')}>
            Enter a cable
          </Button>
        )}
      </div>
      <div style={{ marginBottom: 14 }}>
        <Choice
          label="What is in the bags"
          value={shelf}
          options={shelves.map(([value, name]) => ({ value: value, label: name }))}
          onPick={(value) => setParams(value === 'cables' ? {} : { shelf: value }, { replace: true })}
        />
      </div>
      {shelf === 'adapters' && <AdaptersPanel adapters={bags.data.adapters} />}
      {shelf === 'sockets' && <PinoutsPanel pinouts={pinouts} supplies={modular} />}
      {shelf !== 'cables' ? null : cables.length === 0 ? (
        <Empty title="No spare cables yet">
          What a job leaves over goes here: label it, say what it came with, and draw its wires or probe them.
        </Empty>
      ) : (
        <div className="bags">
          <div>
            <label className="field" style={{ marginBottom: 10 }}>
              <span className="name">On this supply</span>
              <Select
                showSearch={{ optionFilterProp: 'label' }}
                aria-label="On this supply"
                value={model?.id ?? ''}
                onChange={(picked) => setModel(picked)}
                options={[
                  ...modular.map((item) => ({
                    value: item.id,
                    label: isKnown(item.id) ? item.name : `${item.name} (sockets not known)`,
                  })),
                ]}
              />
            </label>
            <ul className="bag-list">
              {cables.map((item) => {
                const { word } = verdictOf(item);
                return (
                  <li key={item.id}>
                    <Button
                      type="text"
                      className="plain"
                      aria-pressed={item === cable}
                      data-bag={item.label}
                      data-word={word}
                      onClick={() => setPicked(item.id)}
                    >
                      <span className="tag small">{item.label}</span>
                      <span className="what">
                        {item.plugs.map((plug) => plugName[plug.kind]).join(' + ')}
                        <span className="quiet block-note">
                          {item.place === '' ? 'place not noted' : item.place}, came with{' '}
                          {item.cameWith === '' ? 'nobody knows what' : item.cameWith}
                        </span>
                      </span>
                      <span className={`verdict ${mark[word]}`}>{crossingWordText[word]}</span>
                    </Button>
                  </li>
                );
              })}
            </ul>
          </div>
          {cable !== undefined && shown !== null && model !== undefined && (
            <section aria-label="The crossing" data-crossing={shown.word}>
              <span className="label">
                {cable.label} on {model.name}
              </span>
              <div className={`verdict ${mark[shown.word]}`} style={{ fontSize: 30 }}>
                {crossingWordText[shown.word]}
              </div>
              {shown.proof !== null && (
                <p>
                  <strong>Proved by probe</strong>, {person(shown.proof.by)}, {calendarDay(shown.proof.at)}.{' '}
                  {shown.proof.note}{' '}
                  <Button
                    type="link"
                    disabled={technician === null}
                    onClick={() =>
                      void prove({
                        by: technician ?? '',
                        cableId: cable.id,
                        modelId: model.id,
                        note: '',
                        proved: false,
                        walks: [],
                      })
                    }
                  >
                    take back
                  </Button>
                </p>
              )}
              {shown.pinout === null && (
                <p className="quiet">
                  Nobody has entered what the {endFamily({ ...cable, fixed: false })} sockets of {model.name} give.
                </p>
              )}
              {coded !== '' && (
                <p className="caution">
                  <span>{coded}</span>
                </p>
              )}
              {cable.plugs.map((plug, index) => {
                const crossing = shown.crossings[index]!;
                return (
                  <div key={index} className="crossed-plug">
                    <p>
                      <strong>{plugName[plug.kind]}</strong>{' '}
                      {plug.millimetres === null ? '(length not measured)' : `at ${plug.millimetres} mm`}
                      {cable.twoEnded ? ', from two plugs at the supply' : ''}: {crossingSentence(crossing)}
                    </p>
                    <ConnectorFace
                      kind={faceOfPlug[plug.kind]}
                      width={560}
                      cellMost={44}
                      marks={
                        new Map(
                          crossing.pins
                            .filter((pin) => pin.word !== 'right')
                            .map((pin) => [pin.pin, pinMark[pin.word]]),
                        )
                      }
                      lit={crossing.pins.filter((pin) => pin.word !== 'right').map((pin) => pin.pin)}
                    />
                    <ul>
                      {crossing.pins
                        .filter((pin) => pin.word !== 'right')
                        .slice(0, 8)
                        .map((pin) => (
                          <li
                            key={pin.pin}
                            className={
                              crossing.word === 'harmful' && pin.word !== 'unknown' && pin.word !== 'missing'
                                ? 'verdict fail'
                                : ''
                            }
                            style={{ fontWeight: 400, whiteSpace: 'normal' }}
                          >
                            {crossedPinText(pin)}
                          </li>
                        ))}
                    </ul>
                  </div>
                );
              })}
              {shown.word === 'harmful' && (
                <p className="caution">
                  <span>Put it back into its bag. Plugs that fit say nothing of the wires behind them.</span>
                </p>
              )}
              {shown.word === 'unknown' && (
                <p className="caution">
                  <span>
                    Cable in the supply, device end loose on the bench, lead in last. Black probe on the supply's
                    ground, then pin by pin; lead out before anything is plugged.
                  </span>
                </p>
              )}
              {shown.word === 'unknown' && (
                <p data-prove-by-walk>
                  A probe walk proves it, one for each of its plugs: in <Link to="/jobs">a job</Link> at Measure, Probe
                  walk; every pin right, then “Keep the proof”.
                </p>
              )}
              <div className="row-actions" style={{ marginTop: 10 }}>
                <Button disabled={technician === null} onClick={() => setEditing(cable)}>
                  Change the cable
                </Button>
                <RemoveButton
                  what={cable.label}
                  text="off the record"
                  disabled={technician === null}
                  onRemove={() => void remove({ id: cable.id, by: technician ?? '' })}
                />
              </div>
              {proving.isError && (
                <p className="error-text" role="alert">
                  {problemOf(proving.error).title}
                </p>
              )}
            </section>
          )}
        </div>
      )}
      {editing !== null && <BagCableDialog was={editing === 'new' ? null : editing} onClose={() => setEditing(null)} />}
    </div>
  );
}
