import { Button } from 'antd';
import { useMatch } from 'react-router';
import { quotedWords, type DangerInWords } from '@fairwatt/core';
import { Keys } from '../controls/fields.tsx';
import { looks } from '../looks/looks.ts';
import { useDesk } from './job-context.ts';
import styles from './said-dangers.module.css';

/**
 * What the client's words speak of and nobody asked about yet: the check that asks, to be answered here, by digits where
 * nothing else takes them.
 */
export function SaidDangers({ digits = false }: { readonly digits?: boolean }) {
  const { view, locked } = useDesk();
  if (locked) return null;
  return view.saidDangers.map((said, index) => (
    <SaidDanger key={said.checkId} said={said} digits={digits && index === 0} />
  ));
}

function SaidDanger({ said: { checkId, words }, digits }: { readonly said: DangerInWords; readonly digits: boolean }) {
  const { knowledge, act } = useDesk();
  const check = knowledge.checks.find(({ id }) => id === checkId);
  if (check === undefined) return null;
  return (
    <section className={styles.said} aria-label={`Asked about ${quotedWords(words)}`} data-said-danger={checkId}>
      <p>
        <strong>The client says {quotedWords(words)}.</strong> {check.caution}
      </p>
      <span className={looks.label}>{check.title}</span>
      <Keys
        label={check.title}
        digits={digits}
        options={check.outcomes.map(({ id, label }) => ({ value: id, label }))}
        onPick={(outcomeId) =>
          act({ kind: 'note-outcome', id: crypto.randomUUID(), checkId, outcomeId, instrumentId: null })
        }
      />
    </section>
  );
}

/**
 * On every station that does not ask itself: that it was not asked, and the way to where it is. Intake asks beneath the
 * words, and nothing moves there while they are typed.
 */
export function SaidDangerStrip() {
  const { view, goTo } = useDesk();
  const station = useMatch('/jobs/:code/:station')?.params.station;
  const asksHere = station === 'intake' || station === 'fault';
  const words = view.saidDangers.flatMap((said) => said.words);
  if (asksHere || words.length === 0) return null;
  return (
    <div className={styles.strip} role="status">
      <strong className={looks.nowrap}>Lead out.</strong>
      <span>The client says {quotedWords(words)}, and nobody asked yet.</span>
      <Button onClick={() => goTo('fault')}>Ask first</Button>
    </div>
  );
}
