import { useState } from 'react';
import { Button, Select } from 'antd';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { searchFieldText, stationIds, stationText, type SearchFieldId, type StationId } from '@fairwatt/core';
import type { JobList } from '@fairwatt/contract';
import { problemOf, useImportJobMutation, useJobsQuery, useShopQuery } from '../app/api.ts';
import { session } from '../app/session.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';
import { FileButton } from '../controls/file-button.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { Choice } from '../controls/choice.tsx';
import { Promised } from '../controls/promised.tsx';

const states = [
  ['all', 'All'],
  ['open', 'Open'],
  ['closed', 'Closed'],
  ['away', 'Put away'],
] as const;
/** What a row shows of its job in any case. */
const shownAnyway: ReadonlySet<SearchFieldId> = new Set(['code', 'title', 'client', 'words']);
const marks = { settled: '✓', 'needs-you': '!', 'in-hand': '', untouched: '' } as const;

/** All jobs, each with its small line of stations. */
export function JobListPage() {
  const dispatch = useAppDispatch();
  const [params, setParams] = useSearchParams();
  const wanted = params.get('state');
  const state = states.find(([value]) => value === wanted)?.[0] ?? 'all';
  const search = params.get('search') ?? '';
  const order = params.get('order') === 'wanted' ? 'wanted' : 'changed';
  const inCharge = params.get('hand') ?? '';
  const after = params.get('after');
  const before = after === null ? params.get('before') : null;
  const people = useShopQuery().data?.technicians ?? [];
  const jobs = useJobsQuery(
    { search, state, order, inCharge, after, before },
    { refetchOnMountOrArgChange: true, refetchOnFocus: true },
  );
  const set = (changes: Record<string, string>) =>
    setParams((before) => {
      const next = new URLSearchParams(before);
      for (const [key, value] of Object.entries(changes))
        if (value === '') next.delete(key);
        else next.set(key, value);
      return next;
    });
  return (
    <div className="page">
      <div className="page-head">
        <h1>Jobs</h1>
        {order === 'changed' && (
          <Choice
            label="State"
            value={state}
            options={states.map(([value, label]) => ({ value: value, label: label }))}
            onPick={(value) => set({ state: value === 'all' ? '' : value, after: '', before: '' })}
          />
        )}
        <Choice
          label="Order"
          value={order}
          options={[
            { value: 'changed', label: 'Last changed' },
            { value: 'wanted', label: 'Wanted next' },
          ]}
          onPick={(value) => set({ order: value === 'changed' ? '' : value, state: '', after: '', before: '' })}
        />
        <Select
          aria-label="In hand of"
          className="in-hand"
          value={inCharge === '' ? null : inCharge}
          placeholder="In anybody’s hand"
          allowClear
          popupMatchSelectWidth={false}
          onChange={(picked: string | undefined) => set({ hand: picked ?? '', after: '', before: '' })}
          options={people.map(({ id, name }) => ({ value: id, label: name }))}
        />
        {search !== '' && (
          <span>
            {foundText(search, jobs.data)}{' '}
            <Button type="link" onClick={() => set({ search: '', after: '', before: '' })}>
              show all
            </Button>
          </span>
        )}
        <Button type="primary" className="primary new-job" onClick={() => dispatch(session.askNewJob())}>
          <span>New job</span>
          <kbd className="single" aria-hidden="true">
            n
          </kbd>
        </Button>
        <ImportButton />
      </div>
      {jobs.isError && jobs.data === undefined && (
        <Empty title={problemOf(jobs.error).title}>It is tried again by itself.</Empty>
      )}
      {jobs.isLoading && <Waiting>Fetching the jobs …</Waiting>}
      {jobs.data?.jobs.length === 0 && (
        <Empty title={search !== '' ? 'Nothing found' : state === 'away' ? 'Nothing is put away' : 'No jobs yet'}>
          {search === '' && state === 'away'
            ? 'An owner puts a job away at Intake, At the counter.'
            : search === ''
              ? 'Press n for the first one, or import a job file.'
              : 'Words are found in any order: code, client, telephone, complaint, part, supply, finding, ' +
                'cable bag, who worked on it.'}
        </Empty>
      )}
      {jobs.data !== undefined && jobs.data.jobs.length > 0 && (
        <ul className="job-list">
          {jobs.data.jobs.map((job) => {
            const stations: JobList['jobs'][number]['stations'] =
              job.stations.length > 0 ? job.stations : stationIds.map((id) => ({ id, state: 'untouched', line: '' }));
            const telling =
              job.stations.find((station) => station.state === 'needs-you') ??
              job.stations.find((station) => station.state === 'in-hand') ??
              [...job.stations].reverse().find((station) => station.state === 'settled');
            return (
              <li key={job.code}>
                <Link className="job-row" to={`/jobs/${job.code}`}>
                  <span className="tag">{job.code}</span>
                  <span style={{ minWidth: 0 }}>
                    <span className="title">{job.title}</span>
                    {job.client !== '' && <span className="quiet">, {job.client}</span>}
                    <Promised priority={job.priority} promisedOn={job.promisedOn} open={job.state === 'open'} />
                    {job.inCharge !== null && job.state === 'open' && (
                      <span className="quiet">
                        {' '}
                        · {people.find(({ id }) => id === job.inCharge)?.name ?? job.inCharge}
                      </span>
                    )}
                    <span className="words" style={{ display: 'block' }}>
                      {job.words}
                    </span>
                    {job.hit !== null && !shownAnyway.has(job.hit.field) && (
                      <span className="words" style={{ display: 'block' }}>
                        <strong>{searchFieldText[job.hit.field]}</strong>: {job.hit.text}
                      </span>
                    )}
                  </span>
                  <span style={{ minWidth: 0, display: 'flex', gap: 14, alignItems: 'center' }}>
                    <span
                      className="mini-track"
                      role="img"
                      aria-label={stations
                        .map((station) => `${stationText[station.id as StationId]}: ${station.state}`)
                        .join(', ')}
                    >
                      {stations.map((station) => (
                        <span key={station.id} className={`node ${station.state}`}>
                          <span>{marks[station.state]}</span>
                        </span>
                      ))}
                    </span>
                    <span
                      className={job.fresh ? undefined : 'quiet'}
                      style={{ minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
                    >
                      {job.state === 'closed' ? (
                        'closed'
                      ) : !job.fresh && job.stations.length === 0 ? (
                        'being worked out …'
                      ) : telling === undefined ? (
                        'not started'
                      ) : (
                        <>
                          <strong>{stationText[telling.id as StationId]}</strong>: {telling.line}
                        </>
                      )}
                    </span>
                  </span>
                </Link>
              </li>
            );
          })}
        </ul>
      )}
      {jobs.data !== undefined && (jobs.data.newer !== null || jobs.data.older !== null) && (
        <div className="row-actions" style={{ marginTop: 14 }}>
          <Button
            disabled={jobs.data.newer === null}
            onClick={() => set({ before: jobs.data?.newer ?? '', after: '' })}
          >
            Newer
          </Button>
          <span style={{ alignSelf: 'center' }}>
            {jobs.data.jobs.length} of {jobs.data.more ? 'more than ' : ''}
            {jobs.data.total} jobs
          </span>
          <Button
            disabled={jobs.data.older === null}
            onClick={() => set({ after: jobs.data?.older ?? '', before: '' })}
          >
            Older
          </Button>
        </div>
      )}
    </div>
  );
}

function ImportButton() {
  const navigate = useNavigate();
  const technician = useAppSelector((state) => state.session.technician);
  const [importJob, { isLoading }] = useImportJobMutation();
  const [problem, setProblem] = useState<{ title: string; details: readonly string[]; file: string | null } | null>(
    null,
  );
  async function send(file: string, as: 'same' | 'new'): Promise<void> {
    if (technician === null) {
      setProblem({ title: 'Pick your name at the top right first', details: [], file: null });
      return;
    }
    const answer = await importJob({ file, by: technician, as });
    if (answer.data !== undefined) {
      setProblem(null);
      void navigate(`/jobs/${answer.data.code}`);
      return;
    }
    const told = problemOf(answer.error);
    setProblem({
      title: told.title,
      details: (told.errors ?? []).slice(0, 6).map((error) => `${error.path}: ${error.message}`),
      file: told.type === '/problems/code-taken' ? file : null,
    });
  }
  return (
    <div style={{ marginLeft: 'auto' }}>
      <FileButton
        label="Import a job file"
        name="Job file"
        busy={isLoading}
        onText={(text) => {
          void send(text, 'same');
        }}
        onTooLarge={(title) => setProblem({ title, details: [], file: null })}
      />
      {problem !== null && (
        <div className="error-text" role="alert" style={{ maxWidth: 460, marginTop: 6 }}>
          <strong>{problem.title}</strong>
          {problem.details.map((detail) => (
            <div key={detail}>{detail}</div>
          ))}
          <div className="row-actions" style={{ marginTop: 4 }}>
            {problem.file !== null && (
              <Button
                onClick={() => {
                  void send(problem.file!, 'new');
                }}
              >
                Import under a new code
              </Button>
            )}
            <Button onClick={() => setProblem(null)}>Leave it</Button>
          </div>
        </div>
      )}
    </div>
  );
}

function foundText(search: string, found: { readonly total: number; readonly more: boolean } | undefined): string {
  if (found === undefined) return `Looking for “${search}” …`;
  return `${found.more ? 'More than ' : ''}${found.total} found for “${search}”`;
}
