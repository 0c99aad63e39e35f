import { useState } from 'react';
import { Button } from 'antd';
import { Link } from 'react-router';
import { checkWorth, type NextCheck } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { savedText } from './saved-text.ts';
import styles from './other-checks.module.css';

/** Alternatives shown before all are asked for. */
const alternatives = 4;

/** How much shorter the search becomes by it, on the whole. */
function savesText(check: NextCheck): string {
  const saved = savedText(check);
  return saved === null ? 'saves nothing' : `saves ${saved}`;
}

/** The checks that are not the next one, each with its worth and its cost. */
export function OtherChecks({
  checks,
  picked,
  onPick,
}: {
  readonly checks: readonly NextCheck[];
  readonly picked: string | null;
  readonly onPick: (checkId: string) => void;
}) {
  const { job, view, knowledge } = useDesk();
  const [all, setAll] = useState(false);
  const decided = job.finding !== null;
  const endangered = view.step.do === 'make-safe';
  return (
    <section aria-label="Other checks">
      <span className={looks.label}>
        {decided ? 'Checks still possible' : endangered ? 'Without any power' : 'Or do'}
      </span>
      <ul className={styles.alternatives}>
        {checks.slice(0, all ? undefined : alternatives).map((check) => (
          <li key={check.checkId}>
            <Button
              type="text"
              className={looks.plain}
              aria-pressed={picked === check.checkId}
              disabled={decided}
              onClick={() => onPick(check.checkId)}
            >
              <span className={styles.what}>
                {knowledge.checks.find((item) => item.id === check.checkId)?.title}
                <span className={styles.reason}>{checkWorth(knowledge, check)}</span>
              </span>
              <span className={`${styles.costs} ${looks.quiet} ${looks.nowrap}`}>
                <span className={looks.fig}>{check.minutes} min</span>
                <span className={styles.saves}>{savesText(check)}</span>
              </span>
            </Button>
          </li>
        ))}
      </ul>
      <p className={`${looks.quiet} ${looks.justBelow}`}>
        {checks.length > alternatives && (
          <Button type="link" aria-expanded={all} onClick={() => setAll(!all)}>
            {all ? 'fewer checks' : `all ${checks.length} checks`}
          </Button>
        )}{' '}
        For what this bench has; <Link to="/settings">change it</Link>.
      </p>
    </section>
  );
}
