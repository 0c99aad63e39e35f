import { Button } from 'antd';
import { findingNames } from '@fairwatt/core';
import { Primary } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import type { SetFinding } from './use-fault-acts.ts';

/** What can be set as the finding now, what the rules offer first. */
export function Decide({ setFinding }: { readonly setFinding: SetFinding }) {
  const { view, knowledge, locked } = useDesk();
  const pair = view.twoFaults?.pairs[0]?.faultIds ?? null;
  const { conclusion } = view;
  const handOn = (
    <Button disabled={locked} onClick={() => setFinding('hand-on', null, false)}>
      No finding, hand on
    </Button>
  );
  // Nothing is settled while something is dangerous, or the client spoke of what may be and nobody has answered it.
  if (view.step.do === 'make-safe' || view.saidDangers.length > 0)
    return <div className={looks.rowActions}>{handOn}</div>;
  return (
    <>
      {view.step.do === 'nothing' && conclusion.state !== 'untouched' && (
        <>
          <p>Nothing this bench can do pays for its minutes any more, and nothing is sure enough to buy a part for.</p>
          <Primary disabled={locked} onClick={() => setFinding('hand-on', null, false)}>
            No finding, hand on
          </Primary>
        </>
      )}
      {conclusion.state === 'offered' && (
        <Primary disabled={locked} onClick={() => setFinding('fault', conclusion.leaderId, true)}>
          Set this as the finding
        </Primary>
      )}
      {conclusion.state === 'outside' && (
        <Primary disabled={locked} onClick={() => setFinding('hand-on', conclusion.leaderId, false)}>
          Hand on: not this job
        </Primary>
      )}
      {conclusion.state === 'well' && (
        <Primary disabled={locked} onClick={() => setFinding('no-fault', null, false)}>
          No fault found
        </Primary>
      )}
      <div className={looks.rowActions}>
        {pair !== null && (
          <Button disabled={locked} onClick={() => setFinding('fault', pair[0], false, pair[1])}>
            Both: {findingNames(knowledge, { faultId: pair[0], alsoFaultId: pair[1] })}
          </Button>
        )}
        {(conclusion.state === 'open' || conclusion.state === 'to-prove') && (
          <Button disabled={locked} onClick={() => setFinding('fault', conclusion.leaderId, false)}>
            Repair the leader now
          </Button>
        )}
        {conclusion.state !== 'well' && (
          <Button disabled={locked} onClick={() => setFinding('no-fault', null, false)}>
            No fault
          </Button>
        )}
        {view.step.do !== 'nothing' && handOn}
      </div>
    </>
  );
}
