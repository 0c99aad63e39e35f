import type { ReactNode } from 'react';
import { choiceReason, standingSentence } from '@fairwatt/core';
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
      const facts = { of: 'present', measuredWell: view.standing.word === 'enough' } as const;
      const choice = { kind: 'keep', modelId: null, reason: reason.trim(), facts, known: [] } as const;
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
      <Said verdict="The present supply is kept" said={choiceReason(job.choice)}>
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
