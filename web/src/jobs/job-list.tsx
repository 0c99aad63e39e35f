import { Button, Select } from 'antd';
import { useSearchParams } from 'react-router';
import type { JobList } from '@fairwatt/contract';
import { problemOf, useJobsQuery, useShopQuery } from '../app/api.ts';
import { session } from '../app/session.ts';
import { useAppDispatch } from '../app/store.ts';
import { Choice } from '../controls/choice.tsx';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { looks } from '../looks/looks.ts';
import { ImportButton } from './import-button.tsx';
import { JobRow } from './job-row.tsx';
import { signs } from '../controls/signs.tsx';
import styles from './job-list.module.css';

const states = [
  ['all', 'All'],
  ['open', 'Open'],
  ['closed', 'Closed'],
  ['away', 'Put away'],
] as const;

/** What of the jobs is asked for, as the address says it. */
function useListWay() {
  const [params, setParams] = useSearchParams();
  const wanted = params.get('state');
  const after = params.get('after');
  const set = (changes: Readonly<Record<string, string>>) =>
    setParams((before) => {
      const next = new URLSearchParams(before);
      for (const [key, value] of Object.entries(changes))
        if (value === '') next.delete(key);
        else next.set(key, value);
      return next;
    });
  return {
    way: {
      state: states.find(([value]) => value === wanted)?.[0] ?? 'all',
      search: params.get('search') ?? '',
      order: params.get('order') === 'wanted' ? 'wanted' : 'changed',
      inCharge: params.get('hand') ?? '',
      after,
      before: after === null ? params.get('before') : null,
    },
    set,
    /** Something else is asked for, from its first page on. */
    ask: (changes: Readonly<Record<string, string>>) => set({ ...changes, after: '', before: '' }),
  } as const;
}
type ListWay = ReturnType<typeof useListWay>;

function foundText(search: string, found: JobList | undefined): string {
  if (found === undefined) return `Looking for “${search}” …`;
  return `${found.more ? 'More than ' : ''}${found.total} found for “${search}”`;
}

function Filters({ way, ask }: Pick<ListWay, 'way' | 'ask'>) {
  const people = useShopQuery().data?.technicians ?? [];
  return (
    <>
      {way.order === 'changed' && (
        <Choice
          label="State"
          value={way.state}
          options={states.map(([value, label]) => ({ value, label }))}
          onPick={(value) => ask({ state: value === 'all' ? '' : value })}
        />
      )}
      <Choice
        label="Order"
        value={way.order}
        options={[
          { value: 'changed', label: 'Last changed' },
          { value: 'wanted', label: 'Wanted next' },
        ]}
        onPick={(value) => ask({ order: value === 'changed' ? '' : value, state: '' })}
      />
      <Select
        aria-label="In hand of"
        className={styles.inHand ?? ''}
        value={way.inCharge === '' ? null : way.inCharge}
        placeholder="In anybody’s hand"
        allowClear
        popupMatchSelectWidth={false}
        onChange={(picked: string | undefined) => ask({ hand: picked ?? '' })}
        options={people.map(({ id, name }) => ({ value: id, label: name }))}
      />
    </>
  );
}

/** Why no job is listed, and what can be done. */
function NoJobs({ search, state }: { readonly search: string; readonly state: string }) {
  if (search !== '')
    return (
      <Empty title="Nothing found">
        Words are found in any order: code, client, telephone, complaint, part, supply, finding, cable bag, who worked
        on it.
      </Empty>
    );
  if (state === 'away')
    return <Empty title="Nothing is put away">An owner puts a job away at Intake, At the counter.</Empty>;
  return <Empty title="No jobs yet">Press n for the first one, or import a job file.</Empty>;
}

function Pages({ list, set }: { readonly list: JobList } & Pick<ListWay, 'set'>) {
  const { newer, older } = list;
  if (newer === null && older === null) return null;
  return (
    <div className={`${looks.rowActions} ${looks.wellBelow}`}>
      <Button icon={signs.previous} disabled={newer === null} onClick={() => set({ before: newer ?? '', after: '' })}>
        Newer
      </Button>
      <span className={looks.centred}>
        {list.jobs.length} of {list.more ? 'more than ' : ''}
        {list.total} jobs
      </span>
      <Button icon={signs.next} disabled={older === null} onClick={() => set({ after: older ?? '', before: '' })}>
        Older
      </Button>
    </div>
  );
}

/** All jobs, each with its small line of stations. */
export function JobListPage() {
  const dispatch = useAppDispatch();
  const { way, set, ask } = useListWay();
  const jobs = useJobsQuery(way, { refetchOnMountOrArgChange: true, refetchOnFocus: true });
  const list = jobs.data;
  return (
    <div className={looks.page}>
      <div className={looks.pageHead}>
        <h1>Jobs</h1>
        <Filters way={way} ask={ask} />
        {way.search !== '' && (
          <span>
            {foundText(way.search, list)}{' '}
            <Button type="link" onClick={() => ask({ search: '' })}>
              show all
            </Button>
          </span>
        )}
        <Button
          icon={signs.add}
          type="primary"
          className={`${looks.primary} ${styles.newJob}`}
          onClick={() => dispatch(session.askNewJob())}
        >
          <span>New job</span>
          <kbd className={looks.single} aria-hidden="true">
            n
          </kbd>
        </Button>
        <ImportButton />
      </div>
      {jobs.isError && list === undefined && (
        <Empty title={problemOf(jobs.error).title}>It is tried again by itself.</Empty>
      )}
      {jobs.isLoading && <Waiting>Fetching the jobs …</Waiting>}
      {list?.jobs.length === 0 && <NoJobs search={way.search} state={way.state} />}
      {list !== undefined && list.jobs.length > 0 && (
        <ul className={styles.jobList}>
          {list.jobs.map((job) => (
            <li key={job.code}>
              <JobRow job={job} />
            </li>
          ))}
        </ul>
      )}
      {list !== undefined && <Pages list={list} set={set} />}
    </div>
  );
}
