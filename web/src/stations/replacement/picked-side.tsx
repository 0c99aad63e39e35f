import { useState } from 'react';
import { Button, Input } from 'antd';
import {
  choiceFacts,
  correctionText,
  doubtsText,
  criterionFigureText,
  criterionText,
  fanSideText,
  fitReasonText,
  loadFindingText,
  moneyText,
  ownPlugText,
  percentText,
  remedyText,
  tooLargeText,
  wattsText,
  type CandidateRow,
} from '@fairwatt/core';
import type { Unit } from '@fairwatt/contract';
import { problemOf, useChangeUnitMutation, useUnitsQuery } from '../../app/api.ts';
import { Primary } from '../../controls/fields.tsx';
import { Spoken } from '../../controls/spoken.tsx';
import { useDesk } from '../../job/job-context.ts';
import { automaticReason } from './candidate-words.ts';

/** The supply picked: what it is, why it stands where it stands, and the choice. */
export function PickedSide({
  candidate,
  best,
  primary,
  onKeep,
}: {
  readonly candidate: CandidateRow;
  readonly best: boolean;
  readonly primary: boolean;
  /** Keeps what is there, for a reason. */
  readonly onKeep: (reason: string) => void;
}) {
  const { job, view, shop, act, locked, inletLabel, partName, goTo } = useDesk();
  const [reason, setReason] = useState('');
  const { model, load, cost } = candidate;
  const { currency } = shop.settings;
  const chosenHere = job.choice?.kind === 'replace' && job.choice.modelId === model.id;
  const said = reason.trim() === '' ? automaticReason(candidate) : reason.trim();
  const keepable =
    view.standing.word === 'enough' ||
    (view.load.plannedAssessment !== null &&
      view.load.plannedAssessment.word !== 'too-small' &&
      view.standing.word !== 'failing');
  const choose = () =>
    act({
      kind: 'set-choice',
      choice: {
        kind: 'replace',
        modelId: model.id,
        reason: said,
        known: choiceFacts(candidate, currency).map((line) => line.slice(0, 200)),
      },
      basedOn: job.choice?.version ?? 0,
    });
  const ownInlets = view.cabling.rows.filter(
    ({ kind, inletId }) =>
      kind === 'main-own' && candidate.reasons.some((item) => item.code === 'inlet' && item.inletId === inletId),
  );
  const beating =
    candidate.beatenBy === null ? undefined : view.candidates.find((other) => other.model.id === candidate.beatenBy);
  const doIt = () => {
    if (choose() === null) goTo('cables');
  };
  const words = candidate.fits
    ? `Choose ${model.name}`
    : candidate.class === 'almost'
      ? 'Choose it with what it takes (say why)'
      : 'Choose all the same (say why)';
  const fitting = candidate.class === 'almost' ? 'Almost fits' : 'Falls';
  const standing = chosenHere ? 'Chosen' : !candidate.fits ? fitting : best ? 'Best by the weights' : 'Fits';
  const stopped = locked || (!candidate.fits && reason.trim() === '');
  return (
    <>
      <span className="label">{standing}</span>
      <Spoken>{`${model.name}: ${standing}`}</Spoken>
      <div className="decides">{model.name}</div>
      <dl className="facts-list">
        <div>
          <dt>rating, guide</dt>
          <dd>
            {wattsText(model.label.ratingWatts)}, {model.label.guide}
          </dd>
        </div>
        <div>
          <dt>lasting load</dt>
          <dd>{percentText(load.loadShare ?? 0)}</dd>
        </div>
        <div>
          <dt>shape, depth</dt>
          <dd>
            {model.label.shape}, {model.depthMillimetres} mm
          </dd>
        </div>
        <div>
          <dt>grade, noise</dt>
          <dd>
            {model.label.grade}
            {model.noiseDecibels === null ? '' : `, ${Math.round(model.noiseDecibels)} dB`}
          </dd>
        </div>
        <div>
          <dt>price, warranty</dt>
          <dd>
            {moneyText(model.price.minor, model.price.currency)}, {model.warrantyYears} y
          </dd>
        </div>
        <div>
          <dt>runs for, a year</dt>
          <dd>{moneyText(cost.minorAYear, currency)}</dd>
        </div>
        <div>
          <dt>cables used</dt>
          <dd>{candidate.cables}</dd>
        </div>
      </dl>
      <p className="quiet">
        {correctionText[model.correction]}, {fanSideText[model.fan]}
        {model.price.asOf === null ? '' : `, price of ${model.price.asOf}`}
        {model.price.currency === currency ? '' : `; its price is in ${model.price.currency} and not compared`}.
      </p>
      {candidate.class === 'almost' && (
        <p>
          <strong>It would fit</strong> with{' '}
          {candidate.remedies.map((remedy) => remedyText(remedy, inletLabel, partName)).join(' and ')}.
        </p>
      )}
      {candidate.fits ? (
        <>
          {load.deciding !== null && <p>Fullest: {loadFindingText(load.deciding)}.</p>}
          {doubtsText(load.doubts) !== null && <p className="quiet">{doubtsText(load.doubts)}</p>}
        </>
      ) : (
        <ul>
          {candidate.reasons.map((item, index) => (
            <li key={index} className="verdict fail" style={{ whiteSpace: 'normal', fontWeight: 400 }}>
              {fitReasonText(item, inletLabel)}
            </li>
          ))}
        </ul>
      )}
      {ownInlets.map(({ inletId, label }) => (
        <p key={inletId}>{ownPlugText(label)}</p>
      ))}
      {candidate.warnings.map((warning) => (
        <p key={warning.code} className="caution">
          <span>
            It fits, but is {tooLargeText(warning)}; {moneyText(warning.minorAYear, currency)} a year to run.
          </span>
        </p>
      ))}
      {!candidate.planProved && <p className="quiet">So many different inlets that a better cable plan may exist.</p>}
      {candidate.openOptional.map((id) => (
        <p key={id}>{inletLabel(id)} stays open: ordinary use does without it, full boost does not.</p>
      ))}
      {candidate.fits && (
        <div
          className="marks"
          role="img"
          aria-label={candidate.marks
            .map(
              (mark) =>
                `${criterionText[mark.criterion]}: ` +
                `${criterionFigureText(candidate, mark.criterion, currency)}, ${mark.points.toFixed(0)} ` +
                'points',
            )
            .join('; ')}
        >
          {candidate.marks
            .filter((mark) => shop.settings.choosing.weights[mark.criterion] > 0)
            .map((mark) => (
              <div key={mark.criterion}>
                <span>{criterionText[mark.criterion]}</span>
                <span className="track">
                  <span style={{ width: `${mark.good * 100}%` }} />
                </span>
                <span className="fig">{mark.points.toFixed(0)}</span>
              </div>
            ))}
        </div>
      )}
      {beating !== undefined && (
        <p className="quiet">{beating.model.name} is at least as good in everything, and better in something.</p>
      )}
      {chosenHere ? (
        <Primary onClick={() => goTo('cables')}>Plan its cables</Primary>
      ) : primary ? (
        <Primary disabled={stopped} onClick={doIt}>
          {words}
        </Primary>
      ) : (
        <Button disabled={stopped} onClick={doIt}>
          {words}
        </Button>
      )}
      {!chosenHere && (
        <label className="field">
          <span className="name">Why this one</span>
          <Input
            value={reason}
            maxLength={500}
            placeholder={automaticReason(candidate)}
            disabled={locked}
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
      )}
      <Units modelId={model.id} chosen={chosenHere} />
      {job.choice?.kind !== 'keep' && primary && (
        <Button disabled={locked || !keepable} onClick={() => onKeep(reason)}>
          {keepable
            ? 'Keep the present supply'
            : view.standing.word === 'failing'
              ? 'The present supply cannot stay: failing'
              : 'The present supply cannot stay: too small'}
        </Button>
      )}
      {job.choice !== null && (
        <div className="quiet">
          {job.choice.kind === 'keep'
            ? 'The present supply is kept.'
            : `Chosen: ${view.chosen?.name ?? job.choice.modelId}. ${job.choice.reason}`}{' '}
          <Button
            type="link"
            disabled={locked}
            onClick={() => act({ kind: 'set-choice', choice: null, basedOn: job.choice!.version })}
          >
            take back
          </Button>
          {job.choice.known.length > 0 && (
            <details>
              <summary>What was known then</summary>
              <ul>
                {job.choice.known.map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
            </details>
          )}
        </div>
      )}
    </>
  );
}

/** The units of this supply on the shelf; one can be put by for this job, or marked as used in it. */
function Units({ modelId, chosen }: { readonly modelId: string; readonly chosen: boolean }) {
  const { code, technician, locked } = useDesk();
  const units = useUnitsQuery();
  const [change, state] = useChangeUnitMutation();
  const own = (units.data ?? []).filter(
    (unit) =>
      unit.modelId === modelId &&
      (unit.reservedFor === code ||
        unit.usedIn === code ||
        ((unit.state === 'new' || unit.state === 'proven') && unit.reservedFor === null)),
  );
  if (own.length === 0) return null;
  const mine = own.find((unit) => unit.reservedFor === code || unit.usedIn === code);
  const set = (unit: Unit, changes: Partial<Unit>) =>
    void change({ by: technician ?? '', basedOn: unit.version, unit: { ...unit, ...changes } });
  const where = (unit: Unit) =>
    [
      unit.place === '' ? 'place not noted' : unit.place,
      unit.serial,
      unit.state === 'proven' ? 'used and proven' : unit.state,
    ]
      .filter((text) => text !== '')
      .join(', ');
  const first = mine ?? own[0]!;
  return (
    <div data-units={modelId}>
      <p>
        {mine === undefined ? 'On the shelf' : mine.state === 'used' ? 'Used here' : 'Put by for this job'}:{' '}
        {where(first)}
        {own.length > 1 && mine === undefined ? ` and ${own.length - 1} more` : ''}.
      </p>
      <div className="row-actions">
        {mine === undefined && (
          <Button disabled={locked || state.isLoading} onClick={() => set(first, { reservedFor: code })}>
            Put one by for this job
          </Button>
        )}
        {mine?.reservedFor === code && (
          <Button type="link" disabled={locked || state.isLoading} onClick={() => set(mine, { reservedFor: null })}>
            release it
          </Button>
        )}
        {mine?.reservedFor === code && chosen && (
          <Button
            type="link"
            disabled={locked || state.isLoading}
            onClick={() => set(mine, { reservedFor: null, state: 'used', usedIn: code })}
          >
            it is fitted
          </Button>
        )}
      </div>
      {state.isError && (
        <p className="error-text" role="alert">
          {problemOf(state.error).title}
        </p>
      )}
    </div>
  );
}
