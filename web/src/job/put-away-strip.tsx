import { Button } from 'antd';
import { dayAndTime } from '../controls/clock.ts';
import { useMay } from '../access/use-may.ts';
import { useDesk } from './job-context.ts';
import styles from './put-away-strip.module.css';

/** Says of a job that was put away by whom and why, and takes it out again. */
export function PutAwayStrip() {
  const { job, act, personName } = useDesk();
  const may = useMay('judge');
  const { putAway } = job;
  if (putAway === null) return null;
  return (
    <p className={styles.putAwayStrip} role="status">
      <span>
        Put away by {personName(putAway.by)}, {dayAndTime(putAway.at)}: {putAway.reason}
      </span>
      <Button disabled={!may} onClick={() => act({ kind: 'reopen', basedOn: job.stateVersion })}>
        Take it out again
      </Button>
    </p>
  );
}
