import { useState } from 'react';
import { conclusionSentence, contradictionText, mindChangerText, twoFaultsText, type NextCheck } from '@fairwatt/core';
import { Primary } from '../../controls/fields.tsx';
import { InterlockCard } from '../../job/interlock-card.tsx';
import { useDesk } from '../../job/job-context.ts';
import { SaidDangers } from '../../job/said-dangers.tsx';
import { looks } from '../../looks/looks.ts';
import { CheckCard } from './check-card.tsx';
import { CureCard } from './cure-card.tsx';
import { Decide } from './decide.tsx';
import { FindingCard } from './finding-card.tsx';
import { OtherChecks } from './other-checks.tsx';
import { Suspects } from './suspects.tsx';
import { Trail } from './trail.tsx';
import { useFaultActs, type FaultActs, type SetFinding } from './use-fault-acts.ts';
import styles from './fault.module.css';

/** What is to be known before the next step: rounds, contradictions, dangers. */
function FaultNotes() {
  const { job, view, knowledge } = useDesk();
  const decided = job.finding !== null;
  return (
    <>
      {view.round > 1 && !decided && (
        <p className={styles.round}>
          Round {view.round}: what was repaired changed nothing; what is known so far still counts.
        </p>
      )}
      {view.contradiction !== null && view.twoFaults === null && (
        <p className={`${looks.caution} ${styles.contradiction}`} role="status">
          <span>{contradictionText(knowledge, view.contradiction)}</span>
        </p>
      )}
      {view.twoFaults !== null && !decided && (
        <p
          className={`${looks.caution} ${styles.contradiction}`}
          role="status"
          data-two-faults={view.twoFaults.firstId}
        >
          <span>{twoFaultsText(knowledge, view.twoFaults)}</span>
        </p>
      )}
      <SaidDangers digits />
      {view.interlocks.map((interlock) => (
        <InterlockCard key={interlock.danger.id} interlock={interlock} />
      ))}
    </>
  );
}

/** What is picked or offered: a check, a repair to try, or none. */
function useOffer(picked: string | null) {
  const { view, knowledge } = useDesk();
  const { step, nextChecks } = view;
  const wanted = picked ?? (step.do === 'check' ? step.checkId : undefined);
  // While something dangerous stands only what needs no power can be picked, and nothing is offered by itself. What is
  // settled offers no check by itself either, so that no key answers one by mistake; others can still be picked.
  const offersNone = step.do === 'make-safe' || step.do === 'finding';
  // Nor is anything while the client's words speak of smoke or liquid and nobody asked: it might be to power it.
  const asksFirst = view.saidDangers.length > 0;
  const check = asksFirst
    ? undefined
    : (nextChecks.find((item) => item.checkId === wanted) ?? (offersNone ? undefined : nextChecks[0]));
  const cure =
    picked === null && !asksFirst && step.do === 'cure'
      ? knowledge.faults.find((fault) => fault.id === step.faultId)
      : undefined;
  return { check, cure, asksFirst };
}

function FaultStep({ offer, acts }: { readonly offer: ReturnType<typeof useOffer>; readonly acts: FaultActs }) {
  const { job, view, knowledge } = useDesk();
  const { check, cure, asksFirst } = offer;
  if (job.finding !== null)
    return <FindingCard finding={job.finding} onRepaired={acts.repaired} setFinding={acts.setFinding} />;
  if (cure !== undefined)
    return (
      <CureCard
        fault={cure}
        sure={view.conclusion.state === 'to-prove'}
        onDone={(result) => acts.repaired(cure.id, result)}
      />
    );
  if (check !== undefined)
    return (
      <CheckCard
        key={check.checkId}
        next={check}
        onAnswer={(outcomeId, instrumentId) => acts.answer(check.checkId, outcomeId, instrumentId)}
      />
    );
  if (view.step.do === 'make-safe' || asksFirst) return null;
  return (
    <section className={looks.nextCheck} aria-label="Next step">
      <span className={looks.label}>Next step</span>
      {view.step.do === 'finding' ? (
        <>
          <h2>{conclusionSentence(knowledge, view.conclusion)}</h2>
          <p>Enter sets it. Whatever else is to be tried first stands below.</p>
        </>
      ) : (
        <>
          <h2>Nothing more can be checked here</h2>
          <p>Hand the job on with what is known, or take an answer back.</p>
        </>
      )}
    </section>
  );
}

function SuspectsSide({ setFinding }: { readonly setFinding: SetFinding }) {
  const { job, view, knowledge, goTo } = useDesk();
  const { conclusion, step, round } = view;
  const decided = job.finding !== null;
  return (
    <aside className={looks.side} aria-label="Suspects">
      <span className={looks.label}>Suspects{round > 1 ? `, round ${round}` : ''}</span>
      <p
        className={conclusion.state === 'open' ? looks.visuallyHidden : looks.quiet}
        data-conclusion={conclusion.state}
        aria-live="polite"
      >
        {conclusionSentence(knowledge, conclusion)}
      </p>
      {view.twoFaults !== null && (
        <p className={looks.quiet}>How likely each is there; with two at once they add up to more than 100%.</p>
      )}
      <Suspects />
      {!decided && <Decide setFinding={setFinding} />}
      {decided && step.do !== 'make-safe' && <Primary onClick={() => goTo('load')}>Go on to Load</Primary>}
      {!decided && view.mindChangers.length > 0 && conclusion.state !== 'untouched' && (
        <section aria-label="What would change this">
          <span className={looks.label}>What would change this</span>
          <ul className={styles.changers}>
            {view.mindChangers.map((changer) => (
              <li key={changer.checkId}>{mindChangerText(knowledge, changer)}</li>
            ))}
          </ul>
        </section>
      )}
    </aside>
  );
}

/** What is likely, why, and which check is worth doing next. */
export default function Fault() {
  const { job, view } = useDesk();
  const [picked, setPicked] = useState<string | null>(null);
  const offer = useOffer(picked);
  const signed = useFaultActs();
  const acts: FaultActs = {
    ...signed,
    answer: (...answer) => {
      setPicked(null);
      signed.answer(...answer);
    },
  };
  const isOther = (check: NextCheck) => check !== offer.check || offer.cure !== undefined || job.finding !== null;
  return (
    <div className={looks.station}>
      <div className={looks.work}>
        <FaultNotes />
        <FaultStep offer={offer} acts={acts} />
        <div className={looks.columns}>
          {!offer.asksFirst && (
            <OtherChecks checks={view.nextChecks.filter(isOther)} picked={picked} onPick={setPicked} />
          )}
          <section aria-label="Done so far">
            <span className={looks.label}>Done so far</span>
            <Trail onAnswer={acts.answer} />
          </section>
        </div>
      </div>
      <SuspectsSide setFinding={acts.setFinding} />
    </div>
  );
}
