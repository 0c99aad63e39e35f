import { outNow, outNowText } from '@fairwatt/core';
import { api } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { dayAndTime } from '../controls/clock.ts';
import { Promised } from '../controls/promised.tsx';
import { onTheWay, unsentOf } from '../offline/summary.ts';
import { useTyping } from '../offline/typing.ts';
import { looks } from '../looks/looks.ts';
import { History } from './history.tsx';
import { useDesk } from './job-context.ts';
import { Notes } from './notes.tsx';
import { Presence } from './presence.tsx';
import { Undo } from './undo.tsx';
import styles from './job-head.module.css';

/** When the server saved a job last. */
const useSavedAt = (code: string): string | undefined =>
  api.endpoints.job.useQueryState(code, { selectFromResult: ({ data }) => ({ savedAt: data?.updatedAt }) }).savedAt;

/** What is known of what was typed: said to be saved only when the server has confirmed it, with its day. */
function SaveState() {
  const { job, personName } = useDesk();
  const { waiting: unsent, refused } = useAppSelector((state) => unsentOf(state, job.code));
  const waiting = unsent + useAppSelector((state) => onTheWay(state, job.code));
  const away = useAppSelector((state) => state.connection !== 'here');
  const isTyping = useTyping();
  const savedAt = useSavedAt(job.code);
  const state = refused > 0 ? 'refused' : isTyping ? 'typing' : waiting === 0 ? 'saved' : away ? 'kept' : 'saving';
  const text = {
    refused: `${refused} not saved`,
    typing: 'Typing …',
    saved: [
      savedAt === undefined ? 'Saved' : `Saved ${dayAndTime(savedAt)}`,
      job.updatedBy === null ? '' : personName(job.updatedBy),
    ]
      .filter((piece) => piece !== '')
      .join(', '),
    kept: `${waiting} kept here`,
    saving: 'Saving …',
  }[state];
  return (
    <span
      className={[styles.saveState, (away || refused > 0) && styles.away, job.state !== 'open' && styles.atRest]
        .filter(Boolean)
        .join(' ')}
      role="status"
      data-save={state}
    >
      {job.state === 'closed' ? 'Closed · ' : job.state === 'away' ? 'Put away · ' : ''}
      {text}
    </span>
  );
}

/** When it is wanted, and whose it is. */
function Order() {
  const { job, personName } = useDesk();
  const { priority, promisedOn, inCharge } = job.sheet;
  return (
    <span className={styles.order}>
      <Promised priority={priority} promisedOn={promisedOn} open={job.state === 'open'} />
      {inCharge !== null && <span className={looks.quiet}>in hand of {personName(inCharge)}</span>}
    </span>
  );
}

/** What hangs loose in the machine right now, to whoever opens the job. */
function OutNow() {
  const { job, view } = useDesk();
  const text = outNowText(outNow(job, view.cabling));
  return text === '' ? null : (
    <span className={styles.outNow} data-out-now>
      ○ {text}
    </span>
  );
}

/** Tag, name, the client's words, and whether everything is saved. */
export function JobHead() {
  const { job } = useDesk();
  return (
    <div className={styles.jobHead}>
      <span className={looks.tag}>{job.code}</span>
      <div className={styles.names}>
        <h1>
          {job.sheet.title}
          {job.sheet.client !== '' && <span className={`${looks.quiet} ${styles.aside}`}>, {job.sheet.client}</span>}
        </h1>
        <div className={styles.words}>
          <Presence />
          {job.sheet.words === '' ? 'No words of the client yet.' : `“${job.sheet.words}”`}
        </div>
      </div>
      <div className={styles.about}>
        <OutNow />
        <Order />
        <span className={styles.acts}>
          <Undo />
          <Notes />
          <History />
        </span>
        <SaveState />
      </div>
    </div>
  );
}
