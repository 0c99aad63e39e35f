import { useState } from 'react';
import { Button } from 'antd';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { stationText, type StationId } from '@fairwatt/core';
import { problemOf, useImportJobMutation, useJobsQuery } from '../app/api.ts';
import { session } from '../app/session.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';
import { FileButton } from '../controls/file-button.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { Choice } from '../controls/choice.tsx';

const states = [
  ['all', 'All'],
  ['open', 'Open'],
  ['closed', 'Closed'],
] as const;
const marks = { settled: '✓', 'needs-you': '!', 'in-hand': '', untouched: '' } as const;

/** All jobs, each with its small line of stations. */
export function JobListPage() {
  const dispatch = useAppDispatch();
  const [params, setParams] = useSearchParams();
  const wanted = params.get('state');
  const state = wanted === 'open' || wanted === 'closed' ? wanted : 'all';
  const search = params.get('search') ?? '';
  const page = Math.max(1, Number(params.get('page') ?? '1') || 1);
  const jobs = useJobsQuery({ search, state, page }, { refetchOnMountOrArgChange: true, refetchOnFocus: true });
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
        <Choice
          label="State"
          value={state}
          options={states.map(([value, label]) => ({ value: value, label: label }))}
          onPick={(value) => set({ state: value === 'all' ? '' : value, page: '' })}
        />
        {search !== '' && (
          <span>
            Found for “{search}”{' '}
            <Button type="link" onClick={() => set({ search: '' })}>
              show all
            </Button>
          </span>
        )}
        <Button type="primary" className="primary new-job" onClick={() => dispatch(session.askNewJob())}>
          <span>New job</span>
          <kbd aria-hidden="true">n</kbd>
        </Button>
        <ImportButton />
      </div>
      {jobs.isError && jobs.data === undefined && (
        <Empty title={problemOf(jobs.error).title}>It is tried again by itself.</Empty>
      )}
      {jobs.isLoading && <Waiting>Fetching the jobs …</Waiting>}
      {jobs.data?.jobs.length === 0 && (
        <Empty title={search === '' ? 'No jobs yet' : 'Nothing found'}>
          {search === ''
            ? 'Press n for the first one, or import a job file.'
            : 'Look for a code, a client, a word of the complaint or a part.'}
        </Empty>
      )}
      {jobs.data !== undefined && jobs.data.jobs.length > 0 && (
        <ul className="job-list">
          {jobs.data.jobs.map((job) => {
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
                    <span className="words" style={{ display: 'block' }}>
                      {job.words}
                    </span>
                  </span>
                  <span style={{ minWidth: 0, display: 'flex', gap: 14, alignItems: 'center' }}>
                    <span
                      className="mini-track"
                      role="img"
                      aria-label={job.stations
                        .map((station) => `${stationText[station.id as StationId]}: ${station.state}`)
                        .join(', ')}
                    >
                      {job.stations.map((station) => (
                        <span key={station.id} className={`node ${station.state}`}>
                          <span>{marks[station.state]}</span>
                        </span>
                      ))}
                    </span>
                    <span style={{ minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
                      {job.state === 'closed' ? (
                        'closed'
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
      {jobs.data !== undefined && jobs.data.total > jobs.data.pageSize && (
        <div className="row-actions" style={{ marginTop: 14 }}>
          <Button disabled={page <= 1} onClick={() => set({ page: String(page - 1) })}>
            Newer
          </Button>
          <span style={{ alignSelf: 'center' }}>
            {(page - 1) * jobs.data.pageSize + 1} to {Math.min(page * jobs.data.pageSize, jobs.data.total)} of{' '}
            {jobs.data.total}
          </span>
          <Button
            disabled={page * jobs.data.pageSize >= jobs.data.total}
            onClick={() => set({ page: String(page + 1) })}
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
