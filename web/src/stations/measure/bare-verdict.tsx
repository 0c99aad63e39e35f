import { Button } from 'antd';
import {
  bareSentence,
  bareWordText,
  checkTitle,
  outcomeLabel,
  standingOutcome,
  type BareVerdict,
} from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { looks, verdictLook } from '../../looks/looks.ts';
import styles from './bare-verdict.module.css';

const mark = { failed: 'fail', good: 'pass', 'cannot-tell': 'cannot-tell' } as const;
const started = 'm-offload';

/** The verdict on a supply by itself, and how it is started without a machine. */
export function BareVerdictSide({ bare }: { readonly bare: BareVerdict }) {
  const { job, knowledge, act, locked } = useDesk();
  const check = knowledge.checks.find(({ id }) => id === started);
  const noted = job.outcomes.findLast(({ checkId, takenBackAt }) => checkId === started && takenBackAt === null);
  return (
    <>
      <div className={looks.decides}>
        <span className={verdictLook(mark[bare.word])} data-bare={bare.word}>
          {bareWordText[bare.word]}
        </span>
      </div>
      <p>{bareSentence(bare)}</p>
      {check !== undefined && bare.word === 'cannot-tell' && (
        <section aria-label={checkTitle(knowledge, started)}>
          <span className={looks.label}>{checkTitle(knowledge, started)}</span>
          <ol className={styles.steps}>
            {check.steps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
          {check.caution !== undefined && (
            <p className={looks.caution}>
              <span>{check.caution} Nobody opens it.</span>
            </p>
          )}
          <div className={`${looks.rowActions} ${styles.answers}`} role="group" aria-label="What it does">
            {check.outcomes.map(({ id }) => (
              <Button
                key={id}
                disabled={locked}
                aria-pressed={noted?.outcomeId === id}
                className={noted?.outcomeId === id ? looks.strong : ''}
                onClick={() =>
                  act(
                    noted?.outcomeId === id
                      ? { kind: 'take-back-outcome', id: noted.id }
                      : {
                          kind: 'note-outcome',
                          id: crypto.randomUUID(),
                          checkId: started,
                          outcomeId: id,
                          instead: standingOutcome(job, started),
                        },
                  )
                }
              >
                {outcomeLabel(knowledge, started, id)}
              </Button>
            ))}
          </div>
        </section>
      )}
    </>
  );
}
