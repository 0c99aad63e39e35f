import type { ReactNode } from 'react';
import { Empty } from '../../controls/empty.tsx';
import { Primary } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import type { OpenWay } from './cables.tsx';
import { RefitDrawing } from './refit-drawing.tsx';
import { RefitSide } from './refit-side.tsx';
import { useSeating } from './use-seating.ts';

/** The plan in one picture, and one connector after the other ticked as seated; plugs are moved by hand here. */
export function RefitView({
  tabs,
  at,
  onWay,
}: {
  readonly tabs: ReactNode;
  /** The inlet that it opens at, and the cable that is lit. */
  readonly at: { readonly inlet: string | null; readonly cable: string | null };
  readonly onWay: OpenWay;
}) {
  const { view, goTo } = useDesk();
  const seating = useSeating(at);
  if (view.cabling.basis === 'none' || seating === null)
    return (
      <>
        <div className={looks.work}>
          {tabs}
          <Empty title="Nothing to refit yet">
            Choose a supply at Replacement, or record the present cables under “As it was”.
          </Empty>
        </div>
        <aside className={looks.side}>
          <Primary onClick={() => goTo('replacement')}>Choose the supply</Primary>
        </aside>
      </>
    );
  return (
    <>
      <div className={looks.work}>
        {tabs}
        <RefitDrawing seating={seating} litCable={at.cable} />
      </div>
      <RefitSide seating={seating} onWay={onWay} />
    </>
  );
}
