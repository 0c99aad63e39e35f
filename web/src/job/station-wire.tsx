import { NavLink } from 'react-router';
import { stationLineText, stationStateText, stationText, type StationState } from '@fairwatt/core';
import { useDesk } from './job-context.ts';
import type { Judging } from './use-sizing.ts';
import styles from './station-wire.module.css';

export function StationNode({ state, mark }: { readonly state: StationState; readonly mark: string }) {
  return (
    <span className={`node ${state}`} aria-hidden="true">
      <span>{state === 'settled' ? '✓' : state === 'needs-you' ? '!' : mark}</span>
    </span>
  );
}

const judgingWords = ({ share, stopped }: Judging) =>
  share !== null ? 'judging supplies …' : stopped ? 'judging stopped' : '';

/** The seven stations as one line of wire: the map and the way to move. */
export function StationWire() {
  const { code, view, knowledge, shop, judging } = useDesk();
  const reached = view.stations.reduce((last, station, index) => (station.state === 'untouched' ? last : index), -1);
  return (
    <nav className={styles.wire} aria-label="Stations">
      {view.stations.map((station, index) => (
        <NavLink
          key={station.id}
          to={`/jobs/${code}/${station.id}`}
          className={index <= reached ? (styles.past ?? '') : ''}
          data-station={station.id}
          data-state={station.state}
        >
          <StationNode state={station.state} mark={String(index + 1)} />
          <span className={styles.name}>
            {stationText[station.id]}
            <span className="visually-hidden">, {stationStateText[station.state]}</span>
          </span>
          <span className={styles.result}>
            {station.id === 'replacement' && station.line.code === 'not-started' && judgingWords(judging) !== ''
              ? judgingWords(judging)
              : stationLineText(
                  station.line,
                  knowledge,
                  (id) => shop.supplies.find((model) => model.id === id)?.name ?? id,
                )}
          </span>
        </NavLink>
      ))}
    </nav>
  );
}
