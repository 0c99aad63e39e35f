import { useState } from 'react';
import { nextStage, openLeads, type Job, type OpenPoint, type PathStage } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { CarryView } from './carry-view.tsx';
import { ChangesView } from './changes-view.tsx';
import { LeadsView } from './leads-view.tsx';
import { RefitView } from './refit-view.tsx';
import { StepsView } from './steps-view.tsx';
import { WasView } from './was-view.tsx';
import { Choice } from '../../controls/choice.tsx';
import { usePromptParams } from '../../controls/use-way.ts';

export type CablesWay = 'was' | 'leads' | 'out' | 'plan' | 'refit' | 'carry' | 'changes';

const wayOfStage: Readonly<Record<PathStage, CablesWay>> = { record: 'was', 'take-out': 'out', refit: 'refit' };

/** The way that is opened where none is asked for: the stage that comes next. */
function usualWay(job: Job, points: readonly OpenPoint[]): CablesWay {
  if (job.choice === null && job.seats.length === 0 && job.finding?.kind !== 'no-fault') return 'was';
  const next = nextStage(job, points);
  // Connectors are seated within the refit; its other steps lead there and on from there.
  return next === null || (next === 'refit' && job.seats.length > 0) ? 'plan' : wayOfStage[next];
}

/** Opens another tab, at an inlet where one is meant. */
export type OpenWay = (way: CablesWay, inletId?: string) => void;

/**
 * The harness as it was, taking it out, the plan for the new supply with each connector ticked, what each cable
 * carries, and what changed.
 */
export default function Cables() {
  const { job, view } = useDesk();
  const { rows, basis } = view.cabling;
  const [params, ask] = usePromptParams();
  const seated = rows.filter((row) => row.state === 'seated').length;
  const toPlug = rows.filter((row) => row.state !== 'stays').length;
  const leadsOut = openLeads(job).out.length;
  const ways: readonly (readonly [CablesWay, string])[] = [
    ['was', `As it was, ${job.cables.length}`],
    ['leads', leadsOut > 0 ? `Other leads, ${leadsOut} out` : `Other leads, ${job.leads.length}`],
    ['out', 'Take out'],
    ['plan', `${basis === 'plan' ? 'Plan and refit' : 'Refit'}, ${seated} of ${toPlug}`],
    ['refit', 'Steps'],
    ['carry', 'What each carries'],
    ['changes', 'Changes and tags'],
  ];
  // Where it opens; it stays there when what is in hand is done, until somebody goes on.
  const [usual] = useState(() => usualWay(job, view.openPoints));
  const way = ways.find(([value]) => value === params.get('way'))?.[0] ?? usual;
  const setWay: OpenWay = (value, inletId) =>
    ask({ ...(value === usual ? {} : { way: value }), ...(inletId === undefined ? {} : { inlet: inletId }) });
  const tabs = (
    <div className={`${looks.above} ${looks.wrapping}`}>
      <Choice
        label="Cables"
        value={way}
        options={ways.map(([value, name]) => ({ value: value, label: name }))}
        onPick={(value) => setWay(value)}
      />
    </div>
  );
  return (
    <div className={looks.station}>
      {way === 'was' && <WasView tabs={tabs} onWay={setWay} />}
      {way === 'leads' && <LeadsView tabs={tabs} onWay={setWay} />}
      {way === 'out' && <StepsView tabs={tabs} phase="take-out" onWay={setWay} />}
      {way === 'plan' && (
        <RefitView tabs={tabs} at={{ inlet: params.get('inlet'), cable: params.get('cable') }} onWay={setWay} />
      )}
      {way === 'refit' && <StepsView tabs={tabs} phase="refit" onWay={setWay} />}
      {way === 'carry' && <CarryView tabs={tabs} onWay={setWay} />}
      {way === 'changes' && <ChangesView tabs={tabs} onWay={setWay} />}
    </div>
  );
}
