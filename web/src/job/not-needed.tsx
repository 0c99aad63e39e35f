import { Empty } from '../controls/empty.tsx';
import { Primary } from '../controls/fields.tsx';
import { looks } from '../looks/looks.ts';
import { useDesk } from './job-context.ts';

/** A station that a supply by itself does not have. */
export function NotNeeded() {
  const { goTo } = useDesk();
  return (
    <div className={looks.station}>
      <div className={looks.work}>
        <Empty title="A supply by itself has no such station">
          It is judged by its own readings, off load and with a load where the bench has one.
        </Empty>
      </div>
      <aside className={looks.side} aria-label="Next">
        <Primary onClick={() => goTo('measure')}>Measure it</Primary>
      </aside>
    </div>
  );
}
