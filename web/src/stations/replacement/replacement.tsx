import { useState, type ReactNode } from 'react';
import type { CandidateRow } from '@fairwatt/core';
import { Choice } from '../../controls/choice.tsx';
import { Empty } from '../../controls/empty.tsx';
import { Primary } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { UpgradeNote } from '../../job/upgrade-note.tsx';
import { looks } from '../../looks/looks.ts';
import { AskedView } from './asked-view.tsx';
import { CandidateList } from './candidate-list.tsx';
import { CompareView } from './compare-view.tsx';
import { JudgingNote, NoneJudged } from './judging-note.tsx';
import { ChosenBefore } from './chosen-before.tsx';
import { PickedSide } from './picked-side.tsx';
import { PresentStays, useKeeping } from './present-stays.tsx';
import { TradeOffView } from './trade-off-view.tsx';
import { useWay } from '../../controls/use-way.ts';

const ways = [
  ['list', 'Candidates'],
  ['compare', 'Compare'],
  ['trade', 'Trade-off'],
  ['asked', 'What is asked'],
] as const;
const mostCompared = 4;

function Station({ work, side }: { readonly work: ReactNode; readonly side: ReactNode }) {
  return (
    <div className={looks.station}>
      <div className={looks.work}>{work}</div>
      <aside className={looks.side} aria-label="The supply picked">
        {side}
      </aside>
    </div>
  );
}

/** The shop's supplies for this machine, best first, each that falls with its reasons; and keeping what is there. */
export default function Replacement() {
  const { job, view, question, goTo } = useDesk();
  const [picked, setPicked] = useState<string | null>(job.choice?.modelId ?? null);
  if (question === null)
    return (
      <Station
        work={
          <Empty title="The machine's parts are missing">
            A supply is chosen for a machine: enter its parts at Intake.
          </Empty>
        }
        side={<Primary onClick={() => goTo('intake')}>Enter the parts at Intake</Primary>}
      />
    );
  const shown = view.candidates.find((candidate) => candidate.model.id === picked) ?? view.candidates[0];
  return (
    <Station
      work={shown === undefined ? <NoneJudged /> : <Candidates shown={shown} onPick={setPicked} />}
      side={
        <>
          {shown !== undefined && <Picked shown={shown} />}
          <ChosenBefore />
        </>
      }
    />
  );
}

/** What is said of the supply picked, after what is said of the present one. */
function Picked({ shown }: { readonly shown: CandidateRow }) {
  const { job, view } = useDesk();
  const { keep } = useKeeping();
  return (
    <>
      <UpgradeNote />
      <PresentStays />
      <PickedSide
        key={shown.model.id}
        candidate={shown}
        best={view.candidates[0] === shown}
        primary={job.choice === null ? view.standing.word !== 'enough' : job.choice.kind === 'replace'}
        onKeep={keep}
      />
    </>
  );
}

/** The candidates in one of four ways: listed, side by side, price against merit, or what is asked of them. */
function Candidates({ shown, onPick }: { readonly shown: CandidateRow; readonly onPick: (id: string) => void }) {
  const { candidates } = useDesk().view;
  const [way, setWay] = useWay(ways, 'list');
  const [marked, setMarked] = useState<readonly string[]>([]);
  const compared = marked.flatMap((id) => candidates.find((candidate) => candidate.model.id === id) ?? []);
  const toggle = (id: string) =>
    setMarked((list) =>
      list.includes(id) ? list.filter((other) => other !== id) : list.length < mostCompared ? [...list, id] : list,
    );
  const nameOf = (value: string, name: string) =>
    value === 'compare' && marked.length > 0 ? `${name} (${marked.length})` : name;
  return (
    <>
      <div className={looks.loadHead}>
        <Choice
          label="Way of choosing"
          value={way}
          options={ways.map(([value, name]) => ({ value, label: nameOf(value, name) }))}
          onPick={setWay}
        />
        <Counts />
      </div>
      {way === 'list' && <CandidateList shown={shown} marked={marked} onPick={onPick} onMark={toggle} />}
      {way === 'compare' && (
        <CompareView
          candidates={compared.length > 0 ? compared : candidates.slice(0, 3)}
          chosen={compared.length > 0}
          onDrop={toggle}
        />
      )}
      {way === 'trade' && (
        <TradeOffView candidates={candidates.filter((candidate) => candidate.fits)} shown={shown} onPick={onPick} />
      )}
      {way === 'asked' && <AskedView />}
    </>
  );
}

/** How many of each kind there are, and whether that is of what is asked now. */
function Counts() {
  const { candidates } = useDesk().view;
  const count = (name: CandidateRow['class']) => candidates.filter((candidate) => candidate.class === name).length;
  return (
    <span>
      <strong data-fitting>{count('fits')} fit</strong>, {count('almost')} almost, {count('falls')} fall <JudgingNote />
    </span>
  );
}
