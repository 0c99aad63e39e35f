import { useState } from 'react';
import { Button } from 'antd';
import { checkTitle, outcomeLabel, triedCureId, type SourcedObservation } from '@fairwatt/core';
import { clockTime } from '../../controls/clock.ts';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { signs } from '../../controls/signs.tsx';
import styles from './trail.module.css';

/** The field of the sheet that an answer told at Intake stands in. */
const fieldOf: Readonly<Record<string, 'button' | 'course'>> = { 'told-button': 'button', 'told-course': 'course' };

const sourceName = {
  intake: 'Intake',
  bench: 'the bench',
  measure: 'Measure',
  load: 'Load',
  'hand-over': 'Hand over',
} as const;
const sourceMark = { intake: '●', bench: '●', measure: '■', load: '■', 'hand-over': '■' } as const;

/** What was done, told and computed, each correctable in place. */
export function Trail({
  onAnswer,
}: {
  readonly onAnswer: (checkId: string, outcomeId: string, instrumentId: string | null) => void;
}) {
  const { view } = useDesk();
  const [open, setOpen] = useState<string | null>(null);
  if (view.observations.length === 0) return <p className={looks.quiet}>Nothing yet.</p>;
  const rounds = view.observations.filter((item) => triedCureId(item.checkId) !== null);
  return (
    <ul className={looks.trail}>
      {view.observations.map((item) => (
        <TrailRow
          key={item.also === true ? `${item.checkId} ${item.outcomeId}` : item.checkId}
          item={item}
          round={rounds.indexOf(item) + 1}
          open={open === item.checkId && item.also !== true}
          onToggle={() => setOpen(open === item.checkId ? null : item.checkId)}
          onAnswer={(outcomeId) => {
            setOpen(null);
            onAnswer(item.checkId, outcomeId, item.instrumentId ?? null);
          }}
        />
      ))}
    </ul>
  );
}

interface RowProps {
  readonly item: SourcedObservation;
  readonly round: number;
  readonly open: boolean;
  readonly onToggle: () => void;
  readonly onAnswer: (outcomeId: string) => void;
}

function TrailRow({ item, round, open, onToggle, onAnswer }: RowProps) {
  const { knowledge, act, locked, job, offerUndo, goTo, view, shop } = useDesk();
  const check = knowledge.checks.find((candidate) => candidate.id === item.checkId);
  const noted = job.outcomes.find((outcome) => outcome.id === item.notedId);
  const title = checkTitle(knowledge, item.checkId);
  const field = item.also === true ? undefined : fieldOf[item.checkId];
  const byHand = item.source === 'bench' || field !== undefined;
  const tester = shop.instruments.find((instrument) => instrument.id === noted?.instrumentId);
  const takeBack = () => {
    if (item.notedId !== null) {
      if (act({ kind: 'take-back-outcome', id: item.notedId }) === null) offerUndo(`${title} is taken back.`);
    } else if (field !== undefined) {
      act({ kind: 'edit-sheet', changes: { [field]: null }, basedOn: job.sheet.version });
    }
  };
  return (
    <li data-trail={item.checkId}>
      <span aria-hidden="true">{sourceMark[item.source]}</span>
      <span className={looks.what}>
        {round > 0 && <span className={looks.quiet}>Round {round} ended: </span>}
        {title}
        {item.also === true && <span className={looks.quiet}>, at other times</span>}:{' '}
        {byHand && check !== undefined ? (
          <Button
            type="text"
            className={looks.answer}
            disabled={locked || job.finding !== null}
            aria-expanded={open}
            aria-label={`Correct ${title}: ${outcomeLabel(knowledge, item.checkId, item.outcomeId)}`}
            onClick={onToggle}
          >
            {outcomeLabel(knowledge, item.checkId, item.outcomeId)}
          </Button>
        ) : (
          <strong>{outcomeLabel(knowledge, item.checkId, item.outcomeId)}</strong>
        )}
        {tester !== undefined && <span className={looks.quiet}> by {tester.name}</span>}
        {view.notCounted.includes(item.checkId) && (
          <span className={`${looks.quiet} ${looks.blockNote}`}>
            Not counted: this knowledge does not know it any more.
          </span>
        )}
        {item.insteadOf !== undefined && item.insteadOf.outcomeId !== item.outcomeId && (
          <span className={`${looks.quiet} ${looks.blockNote}`}>
            Stands before “{outcomeLabel(knowledge, item.checkId, item.insteadOf.outcomeId)}”, noted by hand.
          </span>
        )}
        {open && check !== undefined && (
          <span className={styles.correct} role="group" aria-label={`Correct ${title}`}>
            {[...check.outcomes, { id: 'unknown', label: 'Cannot tell' }]
              .filter((outcome) => item.source === 'bench' || outcome.id !== 'unknown')
              .map((outcome) => (
                <Button
                  key={outcome.id}
                  aria-pressed={outcome.id === item.outcomeId}
                  onClick={() => onAnswer(outcome.id)}
                >
                  {outcome.label}
                </Button>
              ))}
          </span>
        )}
      </span>
      {!byHand && (
        <Button type="link" onClick={() => goTo(item.source === 'bench' ? 'fault' : item.source)}>
          from {sourceName[item.source]}
        </Button>
      )}
      {byHand && (
        <span className={`${looks.quiet} ${looks.nowrap}`}>{noted === undefined ? 'told' : clockTime(noted.at)}</span>
      )}
      {byHand && (
        <Button icon={signs.undo} type="link" disabled={locked} aria-label={`Take back ${title}`} onClick={takeBack}>
          take back
        </Button>
      )}
    </li>
  );
}
