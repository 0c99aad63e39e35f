import { NavLink } from 'react-router';
import { stationLineText, stationStateText, stationText, type StationState } from '@fairwatt/core';
import { useDesk } from './job-context.ts';

export function StationNode({ state, mark }: { readonly state: StationState; readonly mark: string }) {
  return (
    <span className={`node ${state}`} aria-hidden="true">
      <span>{state === 'settled' ? '✓' : state === 'needs-you' ? '!' : mark}</span>
    </span>
  );
}

/** The seven stations as one line of wire: the map and the way to move. */
export function StationWire() {
  const { code, view, knowledge, shop, judging } = useDesk();
  const reached = view.stations.reduce((last, station, index) => (station.state === 'untouched' ? last : index), -1);
  return (
    <nav className="wire" aria-label="Stations">
      {view.stations.map((station, index) => (
        <NavLink
          key={station.id}
          to={`/jobs/${code}/${station.id}`}
          className={index <= reached ? 'past' : ''}
          data-station={station.id}
          data-state={station.state}
        >
          <StationNode state={station.state} mark={String(index + 1)} />
          <span className="name">
            {stationText[station.id]}
            <span className="visually-hidden">, {stationStateText[station.state]}</span>
          </span>
          <span className="result">
            {judging !== null && station.id === 'replacement' && station.line.code === 'not-started'
              ? 'judging supplies …'
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
