import { useState } from 'react';
import { Select } from 'antd';
import { firstJobPage } from '@fairwatt/contract';
import { useJobsQuery } from '../app/api.ts';
import { looks } from '../looks/looks.ts';
import { useDesk } from './job-context.ts';
import type { useOtherJob } from './use-other-job.ts';

/** Another job, found by words, to take something over from; those of the same client stand there at once. */
export function EarlierJob({ label, take, told }: { readonly label: string } & ReturnType<typeof useOtherJob>) {
  const { job, locked } = useDesk();
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState('');
  const search = typed.trim() === '' ? job.sheet.client.trim() : typed;
  const jobs = useJobsQuery({ ...firstJobPage, search }, { skip: !open });
  return (
    <>
      <Select
        aria-label={label}
        value={null}
        placeholder={label}
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
      {told !== null && (
        <span className={looks.errorText} role="alert">
          {told}
        </span>
      )}
    </>
  );
}
