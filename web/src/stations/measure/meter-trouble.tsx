import { troubleText } from '@fairwatt/core';
import { looks } from '../../looks/looks.ts';

/** What is wrong with a meter that is read; nothing where it answers. */
export function MeterTrouble({ trouble }: { readonly trouble: string | null }) {
  if (trouble === null) return null;
  return (
    <p className={looks.errorText} role="alert">
      {trouble === 'server-away'
        ? 'The server does not answer; tried again by itself.'
        : (troubleText[trouble] ?? trouble)}
    </p>
  );
}
