import { useState } from 'react';
import { Button } from 'antd';
import { Link } from 'react-router';
import { leftoversOf } from '@fairwatt/core';
import { problemOf, useChangeBagCableMutation } from '../../app/api.ts';
import { useDesk } from '../../job/job-context.ts';

/** What stays over of the kit goes into the bags in one act, each piece labelled. */
export function BagLeftovers() {
  const { job, view, shop, technician, locked } = useDesk();
  const [change, state] = useChangeBagCableMutation();
  const [told, setTold] = useState<string | null>(null);
  const { plan } = view.cabling;
  const { chosen } = view;
  if (plan === null || chosen === null || plan.bagged.length === 0) return null;
  const left = leftoversOf(job, view.cabling, chosen, shop.bags);

  async function put(): Promise<void> {
    setTold(null);
    for (const piece of left) {
      const answer = await change({
        by: technician ?? '',
        basedOn: 0,
        cable: { ...piece, id: crypto.randomUUID(), version: 0 },
      });
      if (answer.error === undefined) continue;
      setTold(problemOf(answer.error).title);
      return;
    }
  }

  return (
    <p className="quiet" data-leftovers={left.length}>
      In the bag, labelled {chosen.name}:{' '}
      {plan.bagged.map((piece) => `${piece.count} × ${piece.kitCableId}`).join(', ')}.{' '}
      {left.length > 0 ? (
        <Button type="link" disabled={locked || state.isLoading} onClick={() => void put()}>
          Put {left.length === 1 ? 'it' : `these ${left.length}`} into Cable bags
        </Button>
      ) : (
        <>
          They stand in <Link to="/cable-bags">Cable bags</Link>, by this job’s code.
        </>
      )}
      {told !== null && (
        <span className="error-text" role="alert">
          {told}
        </span>
      )}
    </p>
  );
}
