import { countText, drawsText, percentText, riskWord, worthReadingText, type JobPart } from '@fairwatt/core';
import { Waiting } from '../../controls/waiting.tsx';
import { DrawsChart } from '../../charts/draws-chart.tsx';
import { useDesk } from '../../job/job-context.ts';
import { useDraws } from '../../job/use-sizing.ts';
import { looks } from '../../looks/looks.ts';
import styles from './how-sure-view.module.css';

/** 100,000 machines alike, each part somewhere in its range: how often the supply would be too small. */
export function HowSureView({ parts }: { readonly parts: readonly JobPart[] }) {
  const { job, view } = useDesk();
  const draws = useDraws(parts, job.supply?.label ?? null, view.load.ageShare);
  if (draws === null) return <Waiting>Drawing 100,000 machines alike …</Waiting>;
  const risk = draws.against?.anything ?? null;
  const worth = worthReadingText(draws, (id) => parts.find((part) => part.id === id)?.name ?? null);
  return (
    <section aria-label="How sure" data-draws={draws.draws}>
      {risk !== null && (
        <div className={`${looks.decides} ${looks.above}`}>
          {riskWord(risk.share) === 'sure'
            ? 'Surely enough'
            : riskWord(risk.share) === 'likely enough'
              ? 'Likely enough'
              : riskWord(risk.share) === 'a risk'
                ? 'A risk'
                : riskWord(risk.share).replace(/^./, (letter) => letter.toUpperCase())}
          <span className={`${looks.quiet} ${styles.beside}`}>
            {' '}
            something is exceeded in {percentText(risk.share)} of the draws
          </span>
        </div>
      )}
      <DrawsChart
        draws={draws}
        ratingWatts={job.supply === null ? null : job.supply.label.ratingWatts * view.load.ageShare}
      />
      <ul className={looks.below}>
        {drawsText(draws).map((line) => (
          <li key={line} className={styles.line}>
            {line}
          </li>
        ))}
      </ul>
      {worth.length > 0 && (
        <div className={`${looks.block} ${looks.below}`}>
          <span className={looks.label}>What would settle it</span>
          <ul>
            {worth.map((line) => (
              <li key={line}>○ {line}</li>
            ))}
          </ul>
        </div>
      )}
      <p className={`${looks.quiet} ${looks.below}`}>
        {countText(draws.draws)} times each part is drawn from the triangle of its low, likely and high figure. Narrow a
        part's range at Intake and this answers anew.
      </p>
    </section>
  );
}
