import { useMemo, useState } from 'react';
import { Button } from 'antd';
import {
  checkTitle,
  compileModel,
  movedMost,
  othersWeightJobs,
  outcomeLabel,
  percentText,
  shareInterval,
  shippedPriorJobs,
  shippedWeightJobs,
  trustIn,
  type Knowledge,
  type ShopRecord,
  type Tally,
} from '@fairwatt/core';
import { problemOf, useKnowledgeQuery, useLeaveOutMutation, useRecordQuery, useShopQuery } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { Sheet } from '../controls/sheet.tsx';
import { looks } from '../looks/looks.ts';
import styles from './record-page.module.css';

/** What the shop's closed jobs say of each check and instrument, and which of them count. */
export default function RecordPage() {
  const record = useRecordQuery();
  const knowledge = useKnowledgeQuery();
  const shop = useShopQuery();
  const failed = [record, knowledge, shop].find((query) => query.data === undefined && query.isError);
  if (failed !== undefined)
    return (
      <div className={looks.page}>
        <Empty title={problemOf(failed.error).title} />
      </div>
    );
  if (record.data === undefined || knowledge.data === undefined || shop.data === undefined)
    return (
      <div className={looks.page}>
        <Waiting>Fetching the record …</Waiting>
      </div>
    );
  const { counts, jobs } = record.data;
  const { instruments } = shop.data;
  const instrumentName = (id: string | null) =>
    id === null ? 'whoever gave it' : (instruments.find((instrument) => instrument.id === id)?.name ?? id);
  return (
    <div className={looks.page}>
      <div className={looks.pageHead}>
        <h1>The shop's record</h1>
        <span className={looks.quiet}>
          {counts.jobs} closed {counts.jobs === 1 ? 'job counts' : 'jobs count'}, {counts.leftOut} left out.
        </span>
      </div>
      {counts.jobs + counts.leftOut === 0 ? (
        <Empty title="Nothing learned yet">
          A job that is closed with a confirmed fault adds what its checks showed. The shipped figures hold until then.
        </Empty>
      ) : (
        <div className={styles.record}>
          <div>
            <TrustTable knowledge={knowledge.data} counts={counts} instrumentName={instrumentName} />
            <MovedTable knowledge={knowledge.data} counts={counts} />
          </div>
          <JobTable
            jobs={jobs}
            knowledge={knowledge.data}
            owners={shop.data.technicians.filter((person) => person.role === 'owner').map((person) => person.id)}
          />
        </div>
      )}
    </div>
  );
}

/** A share on a line from 0 to 100 % with its interval. */
function ShareLine({ tally, label }: { readonly tally: Tally; readonly label: string }) {
  const interval = shareInterval(tally.count, tally.of);
  if (interval === null) return <span className={looks.quiet}>never seen</span>;
  return (
    <span
      className={styles.shareLine}
      role="img"
      aria-label={
        `${label}: ${tally.count} of ${tally.of}, between ${percentText(interval.low)} and ` +
        percentText(interval.high)
      }
    >
      <span className={`${looks.fig} ${looks.nowrap}`}>
        {tally.count} of {tally.of}
      </span>
      <svg width="120" height="16" viewBox="0 0 120 16" aria-hidden="true">
        <line x1="0" y1="8" x2="120" y2="8" stroke="var(--line)" strokeWidth="6" />
        <line x1={interval.low * 120} y1="8" x2={interval.high * 120} y2="8" stroke="var(--ink-2)" strokeWidth="6" />
        <line x1={interval.share * 120} y1="1" x2={interval.share * 120} y2="15" stroke="var(--ink)" strokeWidth="3" />
      </svg>
      <span className={`${looks.fig} ${looks.quiet} ${looks.nowrap}`}>
        {percentText(interval.low)} to {percentText(interval.high)}
      </span>
    </span>
  );
}

function TrustTable({
  knowledge,
  counts,
  instrumentName,
}: {
  readonly knowledge: Knowledge;
  readonly counts: ShopRecord;
  readonly instrumentName: (id: string | null) => string;
}) {
  const rows = trustIn(knowledge, counts);
  return (
    <section className={looks.block} aria-label="Trust in checks and instruments">
      <span className={looks.label}>What passes judgement on the supply, and how often it was wrong here</span>
      {rows.length === 0 ? (
        <p className={looks.quiet}>No closed job holds a measuring check yet.</p>
      ) : (
        <Sheet
          rows={rows}
          rowKey={(row) => `${row.checkId}|${row.instrumentId ?? ''}`}
          rowProps={(row) => ({ 'data-trust': `${row.checkId}|${row.instrumentId ?? ''}` })}
          columns={[
            {
              head: 'Check, by',
              cell: (row) =>
                row.instrumentId === null ? (
                  <strong>{checkTitle(knowledge, row.checkId)}</strong>
                ) : (
                  <span className={styles.of}>{instrumentName(row.instrumentId)}</span>
                ),
            },
            {
              head: 'Passed a supply that was bad',
              cell: (row) => <ShareLine tally={row.passedBad} label="passed a bad supply" />,
            },
            {
              head: 'Failed a supply that was good',
              cell: (row) => <ShareLine tally={row.failedGood} label="failed a good supply" />,
            },
          ]}
        />
      )}
      <p className={`${looks.quiet} ${looks.justBelow}`}>
        Bars are 95 % intervals: few jobs, wide bars. One instrument's word starts from what the others showed, which
        weighs {othersWeightJobs} jobs, and moves by its own.
      </p>
    </section>
  );
}

function MovedTable({ knowledge, counts }: { readonly knowledge: Knowledge; readonly counts: ShopRecord }) {
  const moved = useMemo(
    () => movedMost(knowledge, compileModel(knowledge, counts).knowledge, counts),
    [knowledge, counts],
  );
  return (
    <section className={looks.block} aria-label="Figures that moved">
      <span className={looks.label}>Figures that moved most</span>
      <Sheet
        rows={moved}
        rowKey={(item) => `${item.checkId}|${item.outcomeId}|${item.faultId}`}
        columns={[
          {
            head: 'With this fault',
            cell: (item) => knowledge.faults.find((fault) => fault.id === item.faultId)?.name,
          },
          {
            head: 'this was seen',
            cell: (item) => (
              <>
                {checkTitle(knowledge, item.checkId)}:{' '}
                {outcomeLabel(knowledge, item.checkId, item.outcomeId).toLowerCase()}
              </>
            ),
          },
          { head: 'shipped', className: looks.num, cell: (item) => percentText(item.shipped) },
          { head: 'now', className: looks.num, cell: (item) => percentText(item.now) },
          {
            head: 'here',
            className: looks.num,
            cell: (item) => (
              <>
                {item.seen.count} of {item.seen.of}
              </>
            ),
          },
        ]}
      />
      <p className={`${looks.quiet} ${looks.justBelow}`}>
        A shipped figure is worth {shippedWeightJobs} jobs with that fault; how common a fault is, all in all
        {` ${shippedPriorJobs}`} jobs.
      </p>
    </section>
  );
}

function JobTable({
  jobs,
  knowledge,
  owners,
}: {
  readonly jobs: readonly {
    readonly code: string;
    readonly title: string;
    readonly faultId: string;
    readonly leftOut: boolean;
  }[];
  readonly knowledge: Knowledge;
  readonly owners: readonly string[];
}) {
  const technician = useAppSelector((state) => state.session.technician);
  const [leaveOut] = useLeaveOutMutation();
  const [problem, setProblem] = useState<string | null>(null);
  const owner = technician !== null && owners.includes(technician);
  async function change(code: string, was: boolean): Promise<void> {
    const answer = await leaveOut({ code, by: technician ?? '', leftOut: !was, was });
    setProblem(answer.error === undefined ? null : problemOf(answer.error).title);
  }
  return (
    <section className={`${looks.block} ${styles.recordJobs}`} aria-label="Jobs in the record">
      <span className={looks.label}>Jobs it stands on</span>
      <p className={looks.quiet}>
        {owner ? 'Leave out a job whose finding you do not trust.' : 'An owner may leave a job out.'}
      </p>
      {problem !== null && (
        <p className={looks.errorText} role="alert">
          {problem}
        </p>
      )}
      <ul className={looks.trail}>
        {jobs.map((job) => (
          <li key={job.code} data-lesson={job.code}>
            <a href={`/jobs/${job.code}`} className={`${looks.fig} ${looks.nowrap}`}>
              {job.code}
            </a>
            <span className={looks.what}>
              {job.leftOut ? (
                <s>{knowledge.faults.find((fault) => fault.id === job.faultId)?.name ?? job.faultId}</s>
              ) : (
                (knowledge.faults.find((fault) => fault.id === job.faultId)?.name ?? job.faultId)
              )}
              <span className={`${looks.quiet} ${looks.blockNote}`}>{job.title}</span>
            </span>
            <Button
              type="link"
              disabled={!owner}
              aria-label={`${job.leftOut ? 'Count' : 'Leave out'} ${job.code}`}
              onClick={() => void change(job.code, job.leftOut)}
            >
              {job.leftOut ? 'count again' : 'leave out'}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
