import { lazy, Suspense } from 'react';
import { useDesk } from './job-context.ts';

/** It reads words as the machine line does, whose lists of words no other station needs. */
const UpgradeInWords = lazy(() => import('./upgrade-in-words.tsx'));

/** Where a supply is judged: what the client plans and nobody entered, fetched only where something is planned. */
export function UpgradeNote() {
  const { job, goTo } = useDesk();
  if (job.sheet.upgrade.trim() === '') return null;
  return (
    <Suspense fallback={null}>
      <UpgradeInWords act="Enter what comes" onAct={() => goTo('intake', 'machine')} />
    </Suspense>
  );
}
