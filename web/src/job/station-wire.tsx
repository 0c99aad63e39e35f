import { NavLink } from 'react-router';
import { stationLineText, stationStateText, stationText } from '@fairwatt/core';
import { looks } from '../looks/looks.ts';
import { useDesk } from './job-context.ts';
import type { Judging } from './use-sizing.ts';
import { StationNode } from './station-node.tsx';
import styles from './station-wire.module.css';

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
          <StationNode state={station.state}>
            {station.state === 'settled' ? '✓' : station.state === 'needs-you' ? '!' : index + 1}
          </StationNode>
          <span className={styles.name}>
            {stationText[station.id]}
            <span className={looks.visuallyHidden}>, {stationStateText[station.state]}</span>
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
