import { useAppSelector } from '../app/store.ts';
import { beside } from '../controls/beside.tsx';
import { looks } from '../looks/looks.ts';
import type { Parcel } from '../offline/parcel.ts';
import { useDesk } from './job-context.ts';

/** That something is not saved is said at once, however long the choice takes to come. */
const ConflictCards = beside(
  () => import('./conflict-cards.tsx'),
  () => (
    <div className={`${looks.notice} ${looks.bad}`} role="alert" data-conflict>
      <span className={looks.mark}>Not saved</span>
      <span>A change was not taken, and stays here. What stands against it is being fetched.</span>
    </div>
  ),
);

const refusedOf = (parcels: readonly Parcel[], code: string) =>
  parcels.filter((parcel) => parcel.kind === 'act').filter((act) => act.code === code && act.state === 'refused');

/**
 * Changes that the server would not take: what they say, what you typed, and the choice. Nothing is dropped unasked.
 */
export function Conflicts() {
  const { code } = useDesk();
  const refused = refusedOf(
    useAppSelector((state) => state.outbox.parcels),
    code,
  );
  return refused.length === 0 ? null : <ConflictCards parcels={refused} />;
}
