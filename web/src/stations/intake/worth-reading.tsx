import { partsAt, worthReadingText } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { useDraws } from '../../job/use-sizing.ts';
import { looks } from '../../looks/looks.ts';

/**
 * The figures that decide whether the supply is enough, and are in doubt: to be read off the part before all others.
 */
export function WorthReading() {
  const { job, view } = useDesk();
  const parts = partsAt(job.parts, 'planned');
  const draws = useDraws(parts, job.supply?.label ?? null, view.load.ageShare);
  if (draws === null) return null;
  const worth = worthReadingText(draws, (id) => parts.find((part) => part.id === id)?.name ?? null);
  if (worth.length === 0) return null;
  return (
    <div>
      <span className={looks.label}>What decides</span>
      <ul>
        {worth.map((line) => (
          <li key={line}>○ {line}</li>
        ))}
      </ul>
    </div>
  );
}
