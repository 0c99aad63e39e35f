import { useState } from 'react';
import { Button } from 'antd';
import {
  conditionText,
  forecastText,
  measuringBar,
  settlingInstruments,
  settlingReadings,
  spokenVerdict,
  standingInterlock,
  isRail,
  subjectText,
  unitOf,
  subjects,
  unreadRailsText,
  verdictLevel,
  verdictReason,
  verdictText,
  voltsText,
  readingsOf,
  roughReadingsOf,
  type Condition,
  type Phase,
  type Verdict,
} from '@fairwatt/core';
import { Empty } from '../../controls/empty.tsx';
import { Spoken } from '../../controls/spoken.tsx';
import { RailBands } from '../../drawings/rail-bands.tsx';
import { useDesk } from '../../job/job-context.ts';
import { InterlockCard } from '../../job/interlock-card.tsx';
import { LiveView } from './live-view.tsx';
import { BareVerdictSide } from './bare-verdict.tsx';
import { LoadLineView } from './load-line-view.tsx';
import { LogView } from './log-view.tsx';
import { ProbeWalk } from './probe-walk.tsx';
import { QuickEntryForm } from './quick-entry-form.tsx';
import { ReadingList } from './reading-list.tsx';
import { WhatNext } from './what-next.tsx';
import { Choice } from '../../controls/choice.tsx';
import { useWay } from '../../controls/use-way.ts';

const ways = [
  ['readings', 'Readings'],
  ['line', 'Load line'],
  ['walk', 'Probe walk'],
  ['log', 'Log'],
  ['live', 'Live'],
] as const;
const order = (verdict: Verdict) =>
  subjects.indexOf(verdict.subject) * 3 + ['off-load', 'idle', 'work'].indexOf(verdict.condition);

/** An error in volts, so that the smallest still shows a figure. */
const errorText = (volts: number) => (volts < 0.01 ? volts.toFixed(4) : voltsText(volts, 3));

/** What the board's own sensor told of rails that nobody has measured: no verdict, and a reason to measure them. */
function RoughWord({ phase }: { readonly phase: Phase }) {
  const rough = roughReadingsOf(useDesk().job, phase);
  if (rough.length === 0) return null;
  const told = rough.flatMap(({ subject, value }) =>
    value.kind === 'figure' ? `${subjectText[subject]} ${voltsText(value.figure)}` : [],
  );
  return (
    <p className="quiet" data-rough>
      The board’s own sensor told {told.join(', ')}: a rough word, of no known error. Measure these rails.
    </p>
  );
}

/** Rails that show nothing are asked about: a machine that is off convicts nobody. */
function WasItStarted({ phase, condition }: { readonly phase: Phase; readonly condition: Condition }) {
  const { job, act, locked } = useDesk();
  const readings = readingsOf(job, phase).filter(
    (reading) => reading.condition === condition && isRail(reading.subject) && reading.subject !== '+5sb',
  );
  return (
    <div className="row-actions" role="group" aria-label="Was the supply started?">
      <Button
        disabled={locked}
        onClick={() => readings.every((reading) => act({ kind: 'strike-reading', id: reading.id }) === null)}
      >
        It was off: strike them
      </Button>
      {phase === 'before' && (
        <Button
          disabled={locked}
          onClick={() =>
            act({
              kind: 'note-outcome',
              id: crypto.randomUUID(),
              checkId: 'm-offload',
              outcomeId: 'nothing',
              instrumentId: null,
            })
          }
        >
          Its start line was tied, nothing came
        </Button>
      )}
    </div>
  );
}

/** Readings, their verdicts against the bands, and what to measure next. */
export default function Measure() {
  const { job, view, shop } = useDesk();
  const [wanted, setPhase] = useState<Phase | null>(null);
  /** The reading that is to be taken now: where, and how often one was asked for. */
  const [asked, setAsked] = useState<{ readonly serial: number; readonly condition: Condition } | null>(null);
  const [way, setWay] = useWay(ways, 'readings');
  const phase: Phase = wanted ?? (job.choice?.kind === 'replace' && job.seats.length > 0 ? 'after' : 'before');
  const result = phase === 'before' ? view.before : view.after;
  const verdicts = [...result.verdicts].sort((a, b) => order(a) - order(b));
  const deciding =
    verdicts.find((verdict) => verdict.word === 'fail') ??
    verdicts.find((verdict) => verdict.word === 'cannot-tell') ??
    verdicts.find((verdict) => verdict.word === 'marginal') ??
    null;
  const forecasts = view.lines[phase].forecasts.filter((item) => item.planned.word !== 'will-pass');
  const unread = unreadRailsText(forecasts.map(({ planned }) => planned));
  const sags = result.steadiness.filter((item) => item.word === 'sags' || item.word === 'wanders');
  const barred = measuringBar(view.interlocks, phase);
  const told = standingInterlock(view.interlocks) ?? barred;
  const judged = view.bareVerdict !== null && view.bareVerdict.word !== 'cannot-tell';
  const latest = readingsOf(job, phase).at(-1);
  const spoken = verdicts.find((one) => one.subject === latest?.subject && one.condition === latest.condition);
  const settling = deciding === null ? [] : settlingInstruments(deciding, shop.instruments);
  return (
    <div className="station">
      <div className="work">
        <div className="measure-tabs">
          <Choice
            label="Way of measuring"
            value={way}
            options={ways.map(([value, name]) => ({ value: value, label: name }))}
            onPick={setWay}
          />
        </div>
        {told !== null && <InterlockCard interlock={told} />}
        {way === 'readings' && (
          <>
            {barred === null && (
              <QuickEntryForm key={asked?.serial} phase={phase} onPhase={setPhase} asked={asked?.condition ?? null} />
            )}
            {verdicts.length === 0 ? (
              <Empty title="No readings yet">
                Type the rail and the figure, such as <kbd>12 11.92</kbd>, and Enter. Several at once are fine.
              </Empty>
            ) : (
              <RailBands verdicts={verdicts} earlier={phase === 'after' ? view.before.verdicts : []} />
            )}
            <RoughWord phase={phase} />
            <ReadingList phase={phase} />
          </>
        )}
        {way === 'line' && <LoadLineView phase={phase} />}
        {way === 'walk' && <ProbeWalk phase={phase} barred={barred !== null} />}
        {way === 'live' && barred === null && <LiveView phase={phase} />}
        {way === 'log' && <LogView phase={phase} guide={result.guide} />}
      </div>
      <aside className="side" aria-label="Verdict">
        <Spoken>{spoken === undefined ? '' : spokenVerdict(spoken)}</Spoken>
        <span className="label">
          {phase === 'before' ? 'The supply that came' : 'The supply that was fitted'}, guide {result.guide}
        </span>
        {view.bareVerdict !== null && <BareVerdictSide bare={view.bareVerdict} />}
        {judged ? null : verdicts.length === 0 ? (
          view.bareVerdict === null && <div className="decides">Nothing measured</div>
        ) : deciding === null ? (
          view.bareVerdict === null && (
            <>
              <div className="decides">
                <span className="verdict pass">
                  {verdicts.length} of {verdicts.length} pass
                </span>
              </div>
              <p>Every reading is inside its band, with the meter's error counted.</p>
            </>
          )
        ) : (
          <>
            <div className="decides">
              {subjectText[deciding.subject]} {conditionText[deciding.condition]}
              <br />
              <span className="fig">{verdictLevel(deciding)}</span>
            </div>
            <span className={`verdict ${deciding.word}`} style={{ fontSize: 20 }} data-verdict={deciding.word}>
              {verdictText[deciding.word]}
            </span>
            <p>{verdictReason(deciding)}.</p>
            {deciding.reason === 'not-started' && <WasItStarted phase={phase} condition={deciding.condition} />}
          </>
        )}
        {sags.map((item) => (
          <p key={item.rail}>
            <strong>
              {item.rail} V {item.word === 'sags' ? `sags by ${voltsText(item.dropVolts ?? 0)} V` : 'wanders'}
            </strong>
            {item.word === 'sags'
              ? `: ${voltsText(item.lightVolts ?? 0)} without load, ${voltsText(item.workVolts ?? 0)} at work.`
              : ` between repeats by ${voltsText(item.spreadVolts ?? 0, 3)} V.`}
          </p>
        ))}
        {result.steadiness
          .filter((item) => item.driftVoltsPerHour !== null)
          .map((item) => (
            <p key={`drift${item.rail}`}>
              <strong>{item.rail} V drifts</strong> by {voltsText(item.driftVoltsPerHour ?? 0, 2)} V an hour between
              repeats.
            </p>
          ))}
        {deciding?.overdue === true && (
          <p className="quiet">
            The calibration of {shop.instruments.find((item) => item.id === deciding.instrumentId)?.name} has run out;
            its error counts half as much again.
          </p>
        )}
        {forecasts
          .filter(({ planned }) => planned.word === 'will-fail' || planned.beyondAmps === null)
          .map(({ planned }) => (
            <p key={planned.rail} data-forecast={planned.word}>
              <strong>{subjectText[planned.rail]} with the plan</strong>: {forecastText(planned)}
            </p>
          ))}
        {unread !== null && <p className="quiet">{unread}</p>}
        {deciding?.word === 'cannot-tell' && (
          <p>
            <strong>To settle it:</strong>{' '}
            {settling.length > 0
              ? `read it ${deciding.count < settlingReadings ? 'three times' : 'again'} with ` +
                `${settling.map((item) => item.name).join(' or ')}.`
              : deciding.settlingRepeats !== null
                ? `read it ${deciding.settlingRepeats} times with the load held steady.`
                : deciding.settlingError === null
                  ? 'read it again three times with the load held steady.'
                  : `a meter with an error under ${errorText(deciding.settlingError)} ${unitOf(deciding.subject)} at ` +
                    'this figure.'}
          </p>
        )}
        <p className="caution">
          Black on a ground pin first, one hand on the probe. Mains inside the supply is never measured.
        </p>
        <WhatNext
          phase={phase}
          failing={deciding?.word === 'fail'}
          onRead={(condition) => setAsked({ serial: (asked?.serial ?? 0) + 1, condition })}
        />
      </aside>
    </div>
  );
}
