import { useAppSelector } from '../app/store.ts';
import { beside } from '../controls/beside.tsx';
import type { Parcel } from '../offline/parcel.ts';
import { useDesk } from './job-context.ts';

const ConflictCards = beside(
  () => import('./conflict-cards.tsx'),
  () => null,
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
