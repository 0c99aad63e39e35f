import { Button } from 'antd';
import {
  dangerCauseText,
  interlockSentence,
  poweringText,
  safetyCheckId,
  type Danger,
  type Interlock,
} from '@fairwatt/core';
import { Keys } from '../controls/fields.tsx';
import { useDesk } from './job-context.ts';

/** Where to go when a danger is over only with its cause. */
function GoneWithItsCause({ danger }: { readonly danger: Danger }) {
  const { goTo } = useDesk();
  return (
    <p className="row-actions">
      {danger.id === 'wrong-plug' && <Button onClick={() => goTo('cables')}>To the connectors</Button>}
    </p>
  );
}

/**
 * What was found dangerous, what to do first, and the ways to note that it was done. Enter takes none of them: making safe
 * is said by its own key or click.
 */
export function InterlockCard({ interlock }: { readonly interlock: Interlock }) {
  const { knowledge, act, locked } = useDesk();
  const { danger, causes, madeSafe } = interlock;
  if (madeSafe !== null)
    return (
      <section className="interlock safe" aria-label="Never powered again" data-interlock={danger.id}>
        <h2>{interlockSentence(interlock)}</h2>
      </section>
    );
  return (
    <section className="interlock" role="alert" aria-label="Make safe first" data-interlock={danger.id}>
      <span className="label">Make safe first</span>
      <h2>{danger.title}</h2>
      <p>
        {danger.why}{' '}
        <span className="quiet">({causes.map((cause) => dangerCauseText(knowledge, cause)).join('; ')})</span>
      </p>
      <ol>
        {danger.first.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      {danger.ways.length === 0 ? (
        <GoneWithItsCause danger={danger} />
      ) : (
        <Keys
          label="What was done"
          disabled={locked}
          options={danger.ways.map((way) => ({
            value: way.id,
            label: way.label,
            hint:
              way.never === undefined
                ? 'the work goes on'
                : `never again: ${way.never.map((item) => poweringText[item]).join('; ')}`,
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
  const standing = view.interlocks.filter((interlock) => interlock.madeSafe === null);
  if (standing.length === 0 || job.state === 'closed') return null;
  return (
    <div className="danger-strip" role="status">
      <strong className="nowrap">Lead out.</strong>
      <span>
        {standing.map((interlock) => interlock.danger.title).join('; ')}. Nothing is powered until{' '}
        {standing.length > 1 ? 'all of it' : 'that'} is made safe.
      </span>
      <Button onClick={() => goTo('fault')}>Make it safe</Button>
    </div>
  );
}
