import { Button } from 'antd';
import { Link } from 'react-router';
import {
  boundToBe,
  codedAgainstPrint,
  crossedPinText,
  crossingSentence,
  crossingWordText,
  endFamily,
  faceOfPlug,
  plugName,
  type Crossing,
  type SpareVerdict,
} from '@fairwatt/core';
import type { BagCable, SupplySummary } from '@fairwatt/contract';
import { problemOf, useChangeProofMutation, useRemoveBagCableMutation, useShopQuery } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { calendarDay } from '../controls/clock.ts';
import { RemoveButton } from '../controls/remove-button.tsx';
import { ConnectorFace } from '../drawings/connector-face.tsx';
import { looks, verdictLook, type Mark } from '../looks/looks.ts';
import { signs } from '../controls/signs.tsx';
import styles from './crossing-panel.module.css';

/** The verdict's mark for each word of a crossing. */
export const crossingMark: Record<Crossing['word'], Mark> = {
  safe: 'pass',
  incomplete: 'marginal',
  unknown: 'cannot-tell',
  harmful: 'fail',
};
const pinMark = { right: '', short: '✕', 'wrong-voltage': '✕', misplaced: '✕', missing: '–', unknown: '?' } as const;
/** So many pins are told one by one. */
const mostTold = 8;

interface Props {
  readonly cable: BagCable;
  readonly model: SupplySummary;
  readonly verdict: SpareVerdict;
}

/** Whether one spare cable may go between a supply and a device, pin by pin, and what to do then. */
export function CrossingPanel({ cable, model, verdict, onChange }: Props & { readonly onChange: () => void }) {
  const technician = useAppSelector((state) => state.session.technician);
  const [remove] = useRemoveBagCableMutation();
  const coded = codedAgainstPrint(cable.codedWatts, verdict.code);
  return (
    <section aria-label="The crossing" data-crossing={verdict.word}>
      <span className={looks.label}>
        {cable.label} on {model.name}
      </span>
      <div className={`${verdictLook(crossingMark[verdict.word])} ${styles.word}`}>
        {crossingWordText[verdict.word]}
      </div>
      <Proof cable={cable} model={model} verdict={verdict} />
      {verdict.pinout === null && (
        <p className={looks.quiet}>
          Nobody has entered what the {endFamily({ ...cable, fixed: false })} sockets of {model.name} give.
        </p>
      )}
      {coded !== '' && (
        <p className={looks.caution}>
          <span>{coded}</span>
        </p>
      )}
      {cable.plugs.map((plug, index) => (
        <CrossedPlug
          key={index}
          plug={plug}
          crossing={boundToBe(verdict.crossings[index], 'crossing of a plug')}
          twoEnded={cable.twoEnded}
        />
      ))}
      <WhatToDo word={verdict.word} />
      <div className={`${looks.rowActions} ${looks.below}`}>
        <Button icon={signs.change} disabled={technician === null} onClick={onChange}>
          Change the cable
        </Button>
        <RemoveButton
          what={cable.label}
          text="off the record"
          disabled={technician === null}
          onRemove={() => void remove({ id: cable.id, by: technician ?? '' })}
        />
      </div>
    </section>
  );
}

/** Who proved it by a probe, when; that can be taken back. */
function Proof({ cable, model, verdict: { proof } }: Props) {
  const technician = useAppSelector((state) => state.session.technician);
  const shop = useShopQuery();
  const [prove, proving] = useChangeProofMutation();
  const person = (id: string) => shop.data?.technicians.find((one) => one.id === id)?.name ?? id;
  const takeBack = () =>
    void prove({ by: technician ?? '', cableId: cable.id, modelId: model.id, note: '', proved: false, walks: [] });
  return (
    <>
      {proof !== null && (
        <p>
          <strong>Proved by probe</strong>, {person(proof.by)}, {calendarDay(proof.at)}. {proof.note}{' '}
          <Button icon={signs.undo} type="link" disabled={technician === null} onClick={takeBack}>
            take back
          </Button>
        </p>
      )}
      {proving.isError && (
        <p className={looks.errorText} role="alert">
          {problemOf(proving.error).title}
        </p>
      )}
    </>
  );
}

/** One plug of the cable, drawn and told by the pins that are not right. */
function CrossedPlug({
  plug,
  crossing,
  twoEnded,
}: {
  readonly plug: BagCable['plugs'][number];
  readonly crossing: Crossing;
  readonly twoEnded: boolean;
}) {
  const amiss = crossing.pins.filter((pin) => pin.word !== 'right');
  return (
    <div className={styles.crossedPlug}>
      <p>
        <strong>{plugName[plug.kind]}</strong>{' '}
        {plug.millimetres === null ? '(length not measured)' : `at ${plug.millimetres} mm`}
        {twoEnded ? ', from two plugs at the supply' : ''}: {crossingSentence(crossing)}
      </p>
      <ConnectorFace
        kind={faceOfPlug[plug.kind]}
        width={560}
        cellMost={44}
        marks={new Map(amiss.map((pin) => [pin.pin, pinMark[pin.word]]))}
        lit={amiss.map((pin) => pin.pin)}
      />
      <ul>
        {amiss.slice(0, mostTold).map((pin) => {
          const harms = crossing.word === 'harmful' && pin.word !== 'unknown' && pin.word !== 'missing';
          return (
            <li key={pin.pin} className={`${harms ? verdictLook('fail') : ''} ${looks.regular} ${looks.wraps}`}>
              {crossedPinText(pin)}
            </li>
          );
        })}
      </ul>
    </div>
  );
}

function WhatToDo({ word }: { readonly word: Crossing['word'] }) {
  if (word === 'harmful')
    return (
      <p className={looks.caution}>
        <span>Put it back into its bag. Plugs that fit say nothing of the wires behind them.</span>
      </p>
    );
  if (word !== 'unknown') return null;
  return (
    <>
      <p className={looks.caution}>
        <span>
          Cable in the supply, device end loose on the bench, lead in last. Black probe on the supply's ground, then pin
          by pin; lead out before anything is plugged.
        </span>
      </p>
      <p data-prove-by-walk>
        A probe walk proves it, one for each of its plugs: in <Link to="/jobs">a job</Link> at Measure, Probe walk;
        every pin right, then “Keep the proof”.
      </p>
    </>
  );
}
