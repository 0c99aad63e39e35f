import { Button } from 'antd';
import { Primary } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';

/**
 * Where to go from Load. A supply that is not known to be wrong, in a machine that gets nothing new and whose fault was
 * found elsewhere, stays: nobody is led to choose another one for it.
 */
export function WhatNext({ changed }: { readonly changed: boolean }) {
  const { job, view, goTo } = useDesk();
  const { standing } = view;
  if (job.supply === null)
    return <Primary onClick={() => goTo('intake', 'supply')}>Enter the supply at Intake</Primary>;
  const settle = standing.word === 'cannot-tell' ? standing.settle : [];
  if (settle[0] === 'measure-at-work') return <Primary onClick={() => goTo('measure')}>Measure at work</Primary>;
  const stays = settle.length > 0 && !changed && job.finding !== null;
  return (
    <>
      {stays ? (
        <Primary onClick={() => goTo('hand-over')}>It stays: hand over</Primary>
      ) : (
        <Primary onClick={() => goTo('replacement')}>
          {standing.word === 'enough' ? 'Keep it or replace it' : 'Choose a replacement'}
        </Primary>
      )}
      {settle.some((one) => one === 'read-label' || one === 'enter-rails') && (
        <Button onClick={() => goTo('intake', 'supply')}>Read its label at Intake</Button>
      )}
    </>
  );
}
