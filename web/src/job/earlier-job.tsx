import { useState } from 'react';
import { Select } from 'antd';
import { firstJobPage } from '@fairwatt/contract';
import { useJobsQuery } from '../app/api.ts';
import { useDesk } from './job-context.ts';

/** Another job, found by words; those of the same client stand there before anything is typed. */
export function EarlierJob({ label, onPick }: { readonly label: string; readonly onPick: (code: string) => void }) {
  const { job, locked } = useDesk();
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState('');
  const search = typed.trim() === '' ? job.sheet.client.trim() : typed;
  const jobs = useJobsQuery({ ...firstJobPage, search }, { skip: !open });
  return (
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
        if (code !== null) onPick(code);
      }}
      options={(jobs.data?.jobs ?? [])
        .filter(({ code }) => code !== job.code)
        .map(({ code, title, client }) => ({
          value: code,
          label: [code, title, client].filter((text) => text !== '').join(' · '),
        }))}
    />
  );
}
