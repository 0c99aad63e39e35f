import { Button } from 'antd';
import { conditionText, doubtText, quickProblemText, readingValueText, subjectText } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import type { QuickEntry } from './use-quick-entry.ts';
import { signs } from '../../controls/signs.tsx';
import styles from './understood-readings.module.css';

/** What the line of readings is understood as, what was kept last, and what is wrong or doubtful. */
export function UnderstoodReadings({ entry }: { readonly entry: QuickEntry }) {
  const { locked } = useDesk();
  const { readings, problems, doubts, impossible, habit, toldKept, takeBack } = entry;
  return (
    <div id="quick-understood" aria-live="polite" className={styles.understood}>
      {readings.map((reading, index) => (
        <span key={index} className={styles.reading}>
          <strong>{subjectText[reading.subject]}</strong>{' '}
          <span className={looks.fig}>{readingValueText(reading.subject, reading.value)}</span>{' '}
          <span className={looks.quiet}>
            {conditionText[reading.condition ?? habit.condition]}
            {reading.loadWatts === null ? '' : `, ${reading.loadWatts} W`}
            {reading.loadAmps === null ? '' : `, ${reading.loadAmps} A`}
          </span>
        </span>
      ))}
      {toldKept !== null && (
        <span className={looks.quiet}>
          Kept {toldKept}.{' '}
          <Button icon={signs.undo} type="link" disabled={locked} onClick={takeBack}>
            take it back
          </Button>{' '}
          <kbd>Ctrl Z</kbd>
        </span>
      )}
      {problems.map((problem, index) => (
        <span key={index} className={`${looks.errorText} ${looks.ownLine}`}>
          {quickProblemText(problem)}
        </span>
      ))}
      {doubts.map(
        (reading, index) =>
          reading.doubt !== null && (
            <span
              key={index}
              className={`${impossible.includes(reading) ? looks.errorText : looks.caution} ${looks.justBelow}`}
              role="alert"
            >
              {doubtText(reading.subject, reading.doubt, !impossible.includes(reading))}
            </span>
          ),
      )}
    </div>
  );
}
