import { Button } from 'antd';
import { dangerCauseText, neverText, safetyCheckId, standingDangersText, type Interlock } from '@fairwatt/core';
import { Keys } from '../controls/fields.tsx';
import { looks } from '../looks/looks.ts';
import { useDesk } from './job-context.ts';
import styles from './interlock-card.module.css';

/**
 * What was found dangerous, what to do first, and the ways to note that it was done. Enter takes none of them: making
 * safe is said by its own key or click.
 */
export function InterlockCard({ interlock }: { readonly interlock: Interlock }) {
  const { knowledge, act, locked, goTo } = useDesk();
  const { danger, causes, madeSafe, bars } = interlock;
  if (madeSafe !== null)
    return (
      <section
        className={`${styles.interlock} ${styles.safe}`}
        aria-label="Never powered again"
        data-interlock={danger.id}
      >
        <h2>
          {danger.title}: {neverText(bars)}
        </h2>
        <p>{madeSafe.label}.</p>
      </section>
    );
  return (
    <section className={styles.interlock} role="alert" aria-label="Make safe first" data-interlock={danger.id}>
      <span className={looks.label}>Make safe first</span>
      <h2>{danger.title}</h2>
      <p>
        {danger.why}{' '}
        <span className={looks.quiet}>({causes.map((cause) => dangerCauseText(knowledge, cause)).join('; ')})</span>
      </p>
      <ol>
        {danger.first.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      {danger.ways.length === 0 ? (
        // It is over with its cause, a plug in the wrong place.
        <Button onClick={() => goTo('cables')}>To the connectors</Button>
      ) : (
        <Keys
          label="What was done"
          disabled={locked}
          options={danger.ways.map((way) => ({
            value: way.id,
            label: way.label,
            hint: neverText(way.never) || 'the work goes on',
          }))}
          onPick={(wayId) =>
            act({
              kind: 'note-outcome',
              id: crypto.randomUUID(),
              checkId: safetyCheckId(danger.id),
              outcomeId: wayId,
            })
          }
        />
      )}
    </section>
  );
}

/** On every station: what stands dangerous in this job, and the way to where it is made safe. */
export function DangerStrip() {
  const { job, view, goTo } = useDesk();
  const text = standingDangersText(view.interlocks);
  if (text === '' || job.state !== 'open') return null;
  return (
    <div className={styles.dangerStrip} role="status">
      <strong className={looks.nowrap}>Lead out.</strong>
      <span>{text}</span>
      <Button onClick={() => goTo('fault')}>Make it safe</Button>
    </div>
  );
}
