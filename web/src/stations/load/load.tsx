import { useState } from 'react';
import { Button } from 'antd';
import {
  forecastText,
  doubtsText,
  hasUsualOutputs,
  loadSentence,
  loadWordText,
  partsAt,
  plugProblemText,
  problemOfLabel,
  standingSentence,
  unreadRailsText,
  wattsText,
  type LoadWord,
  type MachineMoment,
  type Standing,
} from '@fairwatt/core';
import { Empty } from '../../controls/empty.tsx';
import { Primary } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { Spoken } from '../../controls/spoken.tsx';
import { UpgradeNote } from '../../job/upgrade-note.tsx';
import { looks, verdictLook, type Mark } from '../../looks/looks.ts';
import { WhatNext } from './what-next.tsx';
import { ConsumersView } from './consumers-view.tsx';
import { HowSureView } from './how-sure-view.tsx';
import { RulesView } from './rules-view.tsx';
import { RunningView } from './running-view.tsx';
import { Choice } from '../../controls/choice.tsx';
import { useWay } from '../../controls/use-way.ts';
import styles from './load.module.css';

const wordClass: Record<LoadWord, Mark> = {
  enough: 'pass',
  tight: 'tight',
  'too-small': 'fail',
  'cannot-tell': 'cannot-tell',
};
const standingClass: Record<Standing['word'], string | undefined> = {
  failing: styles.bad,
  'too-small': styles.bad,
  enough: styles.good,
  'cannot-tell': '',
};
const ways = [
  ['draw', 'What draws'],
  ['sure', 'How sure'],
  ['rules', 'Sizing rules'],
  ['running', 'Running cost'],
] as const;

/** The lasting load against the supply's rating, and its verdict. */
function AgainstRating({ moment }: { readonly moment: MachineMoment }) {
  const { job, view } = useDesk();
  const { load } = view;
  const demand = moment === 'planned' ? load.planned : load.present;
  const assessment = moment === 'planned' ? load.plannedAssessment : load.presentAssessment;
  const rating = job.supply === null ? null : job.supply.label.ratingWatts * load.ageShare;
  return (
    <>
      <div className={styles.gaugeBig} data-lasting>
        {Math.round(demand.sustainedWatts)}
        <span className={looks.large}> {job.supply === null ? 'W' : `of ${job.supply.label.ratingWatts} W`}</span>
      </div>
      {rating !== null && <Gauge share={demand.sustainedWatts / rating} />}
      {load.ageShare < 1 && job.supply !== null && (
        <p className={looks.quiet}>
          Reckoned with {wattsText(rating ?? 0)}: {Math.round((1 - load.ageShare) * 100)} % off for{' '}
          {job.sheet.supplyYears} years, as the shop allows for age.
        </p>
      )}
      {assessment === null ? (
        <p>Enter the supply's label at Intake to have a verdict.</p>
      ) : (
        <>
          <Spoken>{`${Math.round(demand.sustainedWatts)} W: ${loadWordText[assessment.word]}`}</Spoken>
          <span
            className={`${verdictLook(wordClass[assessment.word])} ${styles.word}`}

            data-verdict={assessment.word}
          >
            {loadWordText[assessment.word]}
          </span>
          <p>{loadSentence(assessment.word, assessment.deciding, moment === 'planned')}</p>
          {job.supply !== null && hasUsualOutputs(job.supply.label) && (
            <p className={looks.caution}>
              {problemOfLabel({ code: 'usual-outputs', ratingWatts: job.supply.label.ratingWatts })}
            </p>
          )}
          {assessment.word !== 'too-small' && doubtsText(assessment.doubts) !== null && (
            <p className={looks.quiet}>{doubtsText(assessment.doubts)}</p>
          )}
        </>
      )}
    </>
  );
}

/** Load and readings taken together, of the supply that came. */
function StandingOfSupply() {
  const { view, knowledge } = useDesk();
  const { standing } = view;
  return (
    <section aria-label="The supply that came">
      <span className={looks.label}>The supply that came, all told</span>
      <p
        className={`${styles.standing} ${standingClass[standing.word]} ${looks.justBelow}`}
        data-standing={standing.word}
      >
        {standingSentence(standing, knowledge)}
      </p>
    </section>
  );
}

/** What the machine draws, with and without the upgrade, against the supply it has. */
export default function Load() {
  const { job, view, goTo } = useDesk();
  const [moment, setMoment] = useState<MachineMoment>('planned');
  const [way, setWay] = useWay(ways, 'draw');
  const { load } = view;
  const changed = job.parts.some((part) => part.change !== 'stays');
  const demand = moment === 'planned' ? load.planned : load.present;
  const assessment = moment === 'planned' ? load.plannedAssessment : load.presentAssessment;
  if (job.parts.length === 0)
    return (
      <div className={looks.station}>
        <div className={looks.work}>
          <Empty title="The machine's parts are missing">They are entered at Intake, under Parts.</Empty>
        </div>
        <aside className={looks.side}>
          <Primary onClick={() => goTo('intake')}>Enter the parts at Intake</Primary>
        </aside>
      </div>
    );
  return (
    <div className={looks.station}>
      <div className={looks.work}>
        <div className={looks.loadHead}>
          <Choice
            label="Machine"
            value={moment}
            options={(['planned', 'present'] as const).map((value) => ({
              value: value,
              label: value === 'planned' ? 'With the upgrade' : 'As it came',
            }))}
            onPick={(value) => setMoment(value)}
          />
          <Choice
            label="Way of looking"
            value={way}
            options={ways.map(([value, name]) => ({ value: value, label: name }))}
            onPick={setWay}
          />
          <span className={looks.quiet}>
            {!changed
              ? 'No part changes.'
              : moment === 'planned'
                ? `${wattsText(load.planned.sustainedWatts - load.present.sustainedWatts)} more than as it came`
                : 'before the upgrade'}
          </span>
        </div>
        {load.plugProblems.map((problem) => (
          <p key={`${problem.kind}${problem.subject}${problem.rail}`} className={`${looks.caution} ${looks.above}`}>
            <span>{plugProblemText(problem)}</span>
          </p>
        ))}
        {way === 'draw' && (
          <ConsumersView parts={partsAt(load.parts, moment)} demand={demand} assessment={assessment} />
        )}
        {way === 'sure' && <HowSureView parts={partsAt(load.parts, moment)} />}
        {way === 'rules' && <RulesView />}
        {way === 'running' && <RunningView />}
      </div>
      <aside className={looks.side} aria-label="Verdict">
        <span className={looks.label}>{moment === 'planned' ? 'With the upgrade' : 'As it came'}</span>
        <AgainstRating moment={moment} />
        {moment === 'planned' && <UpgradeNote />}
        <StandingOfSupply />
        {moment === 'planned' && <MeasuredForecast />}
        <WhatNext changed={changed} />
      </aside>
    </div>
  );
}

/** What the readings say of the present supply under the planned load; what will pass in one line. */
function MeasuredForecast() {
  const { view, goTo } = useDesk();
  const { forecasts } = view.lines.before;
  if (forecasts.length === 0) return null;
  const doubtful = forecasts.filter(({ planned }) => planned.word !== 'will-pass');
  const unread = unreadRailsText(doubtful.map(({ planned }) => planned));
  return (
    <>
      {doubtful
        .filter(({ planned }) => planned.word === 'will-fail' || planned.beyondAmps === null)
        .map(({ planned }) => (
          <p key={planned.rail} data-forecast={planned.word}>
            <strong>Measured, {planned.rail} V</strong>: {forecastText(planned)}
          </p>
        ))}
      {unread !== null && <p className={looks.quiet}>{unread}</p>}
      {doubtful.length < forecasts.length && (
        <p className={looks.quiet}>
          By its readings{' '}
          {forecasts
            .filter(({ planned }) => planned.word === 'will-pass')
            .map(({ planned }) => `${planned.rail} V`)
            .join(' and ')}{' '}
          will pass.{' '}
          <Button type="link" onClick={() => goTo('measure')}>
            Readings
          </Button>
        </p>
      )}
    </>
  );
}

function Gauge({ share }: { readonly share: number }) {
  const shown = Math.min(share, 1.25) / 1.25;
  return (
    <svg
      viewBox="0 0 300 40"
      className={styles.gauge}
      role="img"
      aria-label={`${Math.round(share * 100)} per cent of the rating`}
    >
      <rect x={0} y={8} width={300} height={14} fill="var(--track)" />
      <rect
        x={0}
        y={8}
        width={300 * shown}
        height={14}
        fill={share > 1 ? 'var(--fail)' : share > 0.8 ? 'var(--marginal)' : 'var(--action)'}
      />
      {[0.8, 1].map((mark) => (
        <g key={mark}>
          <line x1={(mark / 1.25) * 300} x2={(mark / 1.25) * 300} y1={4} y2={26} stroke="var(--ink)" strokeWidth={2} />
          <text className={looks.fig} x={(mark / 1.25) * 300} y={38} fontSize={11} textAnchor="middle">
            {mark * 100} %
          </text>
        </g>
      ))}
    </svg>
  );
}
