import { useState } from 'react';
import { Select } from 'antd';
import { firstJobPage } from '@fairwatt/contract';
import { likeEarlier } from '@fairwatt/core';
import { api, problemOf, useJobsQuery } from '../../app/api.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useDesk } from '../../job/job-context.ts';
import { newPartId } from './new-part-id.ts';
import { useTakingIn } from './use-taking-in.ts';

/** Takes over the machine of an earlier job; those of the same client stand there before anything is typed. */
export function LikeEarlier() {
  const { job, shop, locked } = useDesk();
  const dispatch = useAppDispatch();
  const takeIn = useTakingIn();
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const search = typed.trim() === '' ? job.sheet.client.trim() : typed;
  const jobs = useJobsQuery({ ...firstJobPage, search }, { skip: !open });

  async function take(code: string): Promise<void> {
    setProblem(null);
    try {
      const earlier = await dispatch(api.endpoints.job.initiate(code, { subscribe: false })).unwrap();
      const fitted = shop.supplies.find(({ id }) => id === earlier.choice?.modelId) ?? null;
      takeIn(likeEarlier(earlier, fitted, job, newPartId));
    } catch (error) {
      setProblem(`${code} could not be fetched: ${problemOf(error).title}`);
    }
  }

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
