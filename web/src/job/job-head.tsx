import { useAppSelector } from '../app/store.ts';
import { useDesk } from './job-context.ts';
import { clockTime } from '../controls/clock.ts';

/** Tag, name, the client's words, and whether everything is saved. */
export function JobHead() {
  const { job } = useDesk();
  const waiting = useAppSelector(
    (state) => state.outbox.items.filter((item) => item.code === job.code && item.state !== 'refused').length,
  );
  const away = useAppSelector((state) => state.connection === 'away');
  return (
    <div className="job-head">
      <span className="tag">{job.code}</span>
      <div className="names">
        <h1>
          {job.sheet.title}
          {job.sheet.client !== '' && (
            <span className="quiet" style={{ fontWeight: 400, fontSize: 16 }}>
              , {job.sheet.client}
            </span>
          )}
        </h1>
        <div className="words">{job.sheet.words === '' ? 'No words of the client yet.' : `“${job.sheet.words}”`}</div>
      </div>
      <span
        className={`save-state${away ? ' away' : ''}`}
        role="status"
        data-save={waiting > 0 ? (away ? 'kept' : 'saving') : 'saved'}
      >
        {job.state === 'closed' ? 'Closed · ' : ''}
        {waiting === 0 ? `Saved ${clockTime(job.updatedAt)}` : away ? `${waiting} kept here` : 'Saving …'}
      </span>
    </div>
  );
}
