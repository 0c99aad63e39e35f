import { useState } from 'react';
import {
  measuringBar,
  readingsOf,
  roughReadingsOf,
  spokenVerdict,
  standingInterlock,
  subjectText,
  voltsText,
  type Condition,
  type Phase,
} from '@fairwatt/core';
import { Empty } from '../../controls/empty.tsx';
import { Spoken } from '../../controls/spoken.tsx';
import { RailBands } from '../../drawings/rail-bands.tsx';
import { useDesk } from '../../job/job-context.ts';
import { InterlockCard } from '../../job/interlock-card.tsx';
import { looks } from '../../looks/looks.ts';
import { LiveView } from './live-view.tsx';
import { BareVerdictSide } from './bare-verdict.tsx';
import { LoadLineView } from './load-line-view.tsx';
import { LogView } from './log-view.tsx';
import { ProbeWalk } from './probe-walk.tsx';
import { QuickEntryForm } from './quick-entry-form.tsx';
import { ReadingList } from './reading-list.tsx';
import { Forecasts, Steadiness, ToSettle, useVerdicts, VerdictWord } from './verdict-side.tsx';
import { WhatNext } from './what-next.tsx';
import { Choice } from '../../controls/choice.tsx';
import { useWay } from '../../controls/use-way.ts';
import styles from './measure.module.css';

const ways = [
  ['readings', 'Readings'],
  ['line', 'Load line'],
  ['walk', 'Probe walk'],
  ['log', 'Log'],
  ['live', 'Live'],
] as const;
/** What the board's own sensor told of rails that nobody has measured: no verdict, and a reason to measure them. */
function RoughWord({ phase }: { readonly phase: Phase }) {
  const rough = roughReadingsOf(useDesk().job, phase);
  if (rough.length === 0) return null;
  const told = rough.flatMap(({ subject, value }) =>
    value.kind === 'figure' ? `${subjectText[subject]} ${voltsText(value.figure)}` : [],
  );
  return (
    <p className={looks.quiet} data-rough>
      The board’s own sensor told {told.join(', ')}: a rough word, of no known error. Measure these rails.
    </p>
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
  const { result, verdicts, deciding } = useVerdicts(phase);
  const barred = measuringBar(view.interlocks, phase);
  const told = standingInterlock(view.interlocks) ?? barred;
  const latest = readingsOf(job, phase).at(-1);
  const spoken = verdicts.find((one) => one.subject === latest?.subject && one.condition === latest.condition);
  return (
    <div className={looks.station}>
      <div className={looks.work}>
        <div className={styles.measureTabs}>
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
      <aside className={looks.side} aria-label="Verdict">
        <Spoken>{spoken === undefined ? '' : spokenVerdict(spoken)}</Spoken>
        <span className={looks.label}>
          {phase === 'before' ? 'The supply that came' : 'The supply that was fitted'}, guide {result.guide}
        </span>
        {view.bareVerdict !== null && <BareVerdictSide bare={view.bareVerdict} />}
        <VerdictWord phase={phase} />
        <Steadiness phase={phase} />
        {deciding?.overdue === true && (
          <p className={looks.quiet}>
            The calibration of {shop.instruments.find((item) => item.id === deciding.instrumentId)?.name} has run out;
            its error counts half as much again.
          </p>
        )}
        <Forecasts phase={phase} />
        <ToSettle phase={phase} />
        <p className={looks.caution}>
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
