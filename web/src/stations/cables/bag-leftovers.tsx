import { useState, type ReactNode } from 'react';
import { Button } from 'antd';
import { Link } from 'react-router';
import { leftoversOf, oldCablesOf, presentModel, type Leftover } from '@fairwatt/core';
import { problemOf, useChangeBagCableMutation } from '../../app/api.ts';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';

/** Pieces into the bags in one act, each labelled; what is there already is said. */
function IntoBags({
  what,
  pieces,
  onDone,
  children,
}: {
  readonly what: 'leftovers' | 'old cables';
  readonly pieces: readonly Leftover[];
  readonly onDone?: () => void;
  readonly children: ReactNode;
}) {
  const { technician, locked } = useDesk();
  const [change, state] = useChangeBagCableMutation();
  const [told, setTold] = useState<string | null>(null);

  async function put(): Promise<void> {
    setTold(null);
    for (const piece of pieces) {
      const answer = await change({
        by: technician ?? '',
        basedOn: 0,
        cable: { ...piece, id: crypto.randomUUID(), version: 0 },
      });
      if (answer.error === undefined) continue;
      setTold(problemOf(answer.error).title);
      return;
    }
    onDone?.();
  }

  return (
    <p className={looks.quiet} data-into-bags={what} data-left={pieces.length}>
      {children}{' '}
      {pieces.length > 0 ? (
        <Button type="link" disabled={locked || state.isLoading} onClick={() => void put()}>
          Put {pieces.length === 1 ? 'it' : `these ${pieces.length}`} into Cable bags
        </Button>
      ) : (
        <>
          They stand in <Link to="/cable-bags">Cable bags</Link>, by this job’s code.
        </>
      )}
      {told !== null && (
        <span className={looks.errorText} role="alert">
          {told}
        </span>
      )}
    </p>
  );
}

/** What stays over of the new supply's kit. */
export function BagLeftovers() {
  const { job, view, shop } = useDesk();
  const { plan } = view.cabling;
  const { chosen } = view;
  if (plan === null || chosen === null || plan.bagged.length === 0) return null;
  return (
    <IntoBags what="leftovers" pieces={leftoversOf(job, view.cabling, chosen, shop.bags)}>
      In the bag, labelled {chosen.name}:{' '}
      {plan.bagged.map((piece) => `${piece.count} × ${piece.kitCableId}`).join(', ')}.
    </IntoBags>
  );
}

/** The cables of the supply that was taken out; their step is ticked with it. */
export function BagOldCables({ onDone }: { readonly onDone: () => void }) {
  const { job, shop } = useDesk();
  const present = presentModel(job, shop.supplies);
  const all = oldCablesOf(job, present, { cables: [] });
  const [first] = all;
  if (first === undefined) return null;
  return (
    <IntoBags what="old cables" pieces={oldCablesOf(job, present, shop.bags)} onDone={onDone}>
      The old supply’s {all.length === 1 ? 'cable' : `${all.length} cables`}, labelled {first.cameWith}.
    </IntoBags>
  );
}
