import type { ReactNode } from 'react';
import { standingSentence } from '@fairwatt/core';
import { Primary } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { verdictLook } from '../../looks/looks.ts';
import styles from './replacement.module.css';

/** Keeps the present supply, for a reason, and goes on with what comes after it; `next` says what that is. */
export function useKeeping(): { readonly keep: (reason: string) => void; readonly next: 'cables' | 'hand-over' } {
  const { job, view, act, goTo } = useDesk();
  const next = job.parts.some(({ change }) => change !== 'stays') ? 'cables' : 'hand-over';
  return {
    next,
    keep: (reason) => {
      // Enough is said only where readings at work say so too.
      const usual = view.standing.word === 'enough' ? 'It carries the plan and measures well.' : 'It carries the plan.';
      const said = reason.trim() === '' ? usual : reason.trim();
      const choice = { kind: 'keep', modelId: null, reason: said, known: [] } as const;
      if (act({ kind: 'set-choice', choice, basedOn: job.choice?.version ?? 0 }) === null) goTo(next);
    },
  };
}

/** That what is there is good enough or is kept, said as gladly as a choice, with what comes next. */
export function PresentStays() {
  const { job, view, knowledge, locked, goTo } = useDesk();
  const { keep, next } = useKeeping();
  if (job.choice?.kind === 'keep')
    return (
      <Said verdict="The present supply is kept" said={job.choice.reason}>
        <Primary onClick={() => goTo(next)}>{next === 'cables' ? 'Its cables for the upgrade' : 'Hand over'}</Primary>
      </Said>
    );
  if (view.standing.word !== 'enough' || job.choice !== null) return null;
  return (
    <Said verdict="The present supply can stay" said={standingSentence(view.standing, knowledge)}>
      <Primary disabled={locked} onClick={() => keep('')}>
        Keep the present supply
      </Primary>
    </Said>
  );
}

function Said({
  verdict,
  said,
  children,
}: {
  readonly verdict: string;
  readonly said: string;
  readonly children: ReactNode;
}) {
  return (
    <section aria-label={verdict} className={styles.stays ?? ''}>
      <p className={`${verdictLook('pass')} ${styles.verdict ?? ''}`}>{verdict}</p>
      <p>{said}</p>
      {children}
    </section>
  );
}
