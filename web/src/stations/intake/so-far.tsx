import type { ReactNode } from 'react';
import { outcomeLabel, partsAt, wattsText } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { WorthReading } from './worth-reading.tsx';

function Fact({ name, children }: { readonly name: string; readonly children: ReactNode }) {
  return (
    <div>
      <dt>{name}</dt>
      <dd>{children}</dd>
    </div>
  );
}

/** What is known, what it means already, and what is still missing. */
export function SoFar({ missing }: { readonly missing: readonly string[] }) {
  const { job, view, knowledge } = useDesk();
  const { bareSupply: bare, button, cableBag } = job.sheet;
  const inlets = partsAt(job.parts, 'planned').flatMap((part) => part.inlets).length;
  return (
    <>
      <span className={looks.label}>So far</span>
      <div className={looks.decides}>
        {bare
          ? (job.supply?.name ?? '') || 'A supply by itself'
          : button === null
            ? 'What does pressing the button do?'
            : button === 'nothing'
              ? 'Its button does nothing'
              : outcomeLabel(knowledge, 'told-button', button)}
      </div>
      <dl className={looks.factsList}>
        {!bare && (
          <>
            <Fact name="parts">{job.parts.length}</Fact>
            <Fact name="inlets">{inlets}</Fact>
            <Fact name="lasting load, planned">{wattsText(view.load.planned.sustainedWatts)}</Fact>
          </>
        )}
        <Fact name="supply">{job.supply === null ? 'not entered' : wattsText(job.supply.label.ratingWatts)}</Fact>
      </dl>
      {missing.length > 0 && (
        <div>
          <span className={looks.label}>Still missing</span>
          <ul>
            {missing.map((text) => (
              <li key={text}>○ {text}</li>
            ))}
          </ul>
        </div>
      )}
      {job.parts.length > 0 && (job.supply?.label.rails.length ?? 0) > 0 && <WorthReading />}
      {cableBag === 'missing' && (
        <div className={looks.caution}>The cable bag did not come along. Ask for it before anything is fitted.</div>
      )}
    </>
  );
}
