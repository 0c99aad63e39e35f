import { Link } from 'react-router';
import { searchFieldText, stationIds, stationText, type SearchFieldId, type StationId } from '@fairwatt/core';
import type { JobList } from '@fairwatt/contract';
import { StationNode } from '../job/station-node.tsx';
import { useShopQuery } from '../app/api.ts';
import { Promised } from '../controls/promised.tsx';
import { looks } from '../looks/looks.ts';
import styles from './job-row.module.css';

type ListedJob = JobList['jobs'][number];

/** What a row shows of its job in any case. */
const shownAnyway: ReadonlySet<SearchFieldId> = new Set(['code', 'title', 'client', 'words']);
const marks = { settled: '✓', 'needs-you': '!', 'in-hand': '', untouched: '' } as const;

const untouched: ListedJob['stations'] = stationIds.map((id) => ({ id, state: 'untouched', line: '' }));

/** All stations as a small line of nodes. */
function MiniTrack({ stations }: { readonly stations: ListedJob['stations'] }) {
  return (
    <span
      className={styles.miniTrack}
      role="img"
      aria-label={stations.map((station) => `${stationText[station.id as StationId]}: ${station.state}`).join(', ')}
    >
      {stations.map((station) => (
        <StationNode key={station.id} state={station.state}>
          {marks[station.state]}
        </StationNode>
      ))}
    </span>
  );
}

/** Where the job stands: the station that needs somebody, else the one in hand, else the last that is settled. */
function Telling({ job }: { readonly job: ListedJob }) {
  if (job.state === 'closed') return 'closed';
  if (!job.fresh && job.stations.length === 0) return 'being worked out …';
  const telling =
    job.stations.find((station) => station.state === 'needs-you') ??
    job.stations.find((station) => station.state === 'in-hand') ??
    [...job.stations].reverse().find((station) => station.state === 'settled');
  if (telling === undefined) return 'not started';
  return (
    <>
      <strong>{stationText[telling.id as StationId]}</strong>: {telling.line}
    </>
  );
}

/** Whose job it is, in the client's words. */
function JobWords({ job }: { readonly job: ListedJob }) {
  const people = useShopQuery().data?.technicians ?? [];
  return (
    <span className={looks.yields}>
      <span className={styles.title}>{job.title}</span>
      {job.client !== '' && <span className={looks.quiet}>, {job.client}</span>}
      <Promised priority={job.priority} promisedOn={job.promisedOn} open={job.state === 'open'} inText />
      {job.inCharge !== null && job.state === 'open' && (
        <span className={looks.quiet}>
          {' '}
          <span className={styles.person}>· {people.find(({ id }) => id === job.inCharge)?.name ?? job.inCharge}</span>
        </span>
      )}
      <span className={`${styles.words} ${looks.ownLine}`}>{job.words}</span>
      {job.hit !== null && !shownAnyway.has(job.hit.field) && (
        <span className={`${styles.words} ${looks.ownLine}`}>
          <strong>{searchFieldText[job.hit.field]}</strong>: {job.hit.text}
        </span>
      )}
    </span>
  );
}

/** A job in one line, which leads to it. */
export function JobRow({ job }: { readonly job: ListedJob }) {
  return (
    <Link className={styles.jobRow} to={`/jobs/${job.code}`}>
      <span className={looks.tag}>{job.code}</span>
      <JobWords job={job} />
      <span className={styles.wanted}>
        <MiniTrack stations={job.stations.length > 0 ? job.stations : untouched} />
        <span className={job.fresh ? styles.oneLine : `${looks.quiet} ${styles.oneLine}`}>
          <Telling job={job} />
        </span>
      </span>
    </Link>
  );
}
