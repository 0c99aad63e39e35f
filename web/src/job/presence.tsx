import { useEffect } from 'react';
import { presenceBeatSeconds } from '@fairwatt/contract';
import { useBePresentMutation, usePresentQuery } from '../app/api.ts';
import { thisTab } from '../offline/parcel.ts';
import { looks } from '../looks/looks.ts';
import { useDesk } from './job-context.ts';
import styles from './presence.module.css';

/** Tells that this job is open here, for as long as it is. */
function useBeingHere(code: string, by: string | null): void {
  const [tell] = useBePresentMutation();
  useEffect(() => {
    if (by === null) return undefined;
    const here = (at: string | null) => void tell({ tab: thisTab, by, code: at });
    here(code);
    const timer = setInterval(() => here(code), presenceBeatSeconds * 1000);
    const leave = () => here(null);
    window.addEventListener('pagehide', leave);
    return () => {
      clearInterval(timer);
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, [code, by, tell]);
}

/**
 * Who else has this job open now: in a line that stands anyway, so that nothing moves under whoever is about to press.
 */
export function Presence() {
  const { code, technician, personName } = useDesk();
  useBeingHere(code, technician);
  const { data: present = [] } = usePresentQuery(code, { pollingInterval: 60_000, skipPollingIfUnfocused: true });
  const others = [...new Set(present.filter((one) => one.tab !== thisTab).map((one) => one.by))];
  const names = others.map((id) => (id === technician ? 'you, in another window' : personName(id)));
  return (
    <span className={others.length === 0 ? undefined : styles.present} role="status">
      {others.length > 0 && (
        <>
          <span className={looks.mark}>Also at this job:</span> {names.join(', ')}
        </>
      )}
    </span>
  );
}
