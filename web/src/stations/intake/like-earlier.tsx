import { useState } from 'react';
import { Select } from 'antd';
import { firstJobPage } from '@fairwatt/contract';
import { useJobsQuery } from '../../app/api.ts';
import { useDesk } from '../../job/job-context.ts';
import { useLikeJob } from './use-like-job.ts';

/** Takes over the machine of an earlier job; those of the same client stand there before anything is typed. */
export function LikeEarlier() {
  const { job, locked } = useDesk();
  const { take, problem } = useLikeJob();
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState('');
  const search = typed.trim() === '' ? job.sheet.client.trim() : typed;
  const jobs = useJobsQuery({ ...firstJobPage, search }, { skip: !open });

  return (
    <>
      <Select
        aria-label="Like an earlier machine"
        value={null}
        placeholder="Like an earlier machine"
        disabled={locked}
        popupMatchSelectWidth={false}
        showSearch={{ filterOption: false, onSearch: setTyped }}
        loading={open && jobs.isFetching}
        notFoundContent={jobs.isFetching ? 'Looking …' : 'No job is like that'}
        onOpenChange={setOpen}
        onChange={(code: string | null) => {
          if (code !== null) void take(code);
        }}
        options={(jobs.data?.jobs ?? [])
          .filter(({ code }) => code !== job.code)
          .map(({ code, title, client }) => ({
            value: code,
            label: [code, title, client].filter((text) => text !== '').join(' · '),
          }))}
      />
      {problem !== null && (
        <span className="error-text" role="alert">
          {problem}
        </span>
      )}
    </>
  );
}
