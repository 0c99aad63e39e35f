import { useState } from 'react';
import { Button, Select } from 'antd';
import { Link } from 'react-router';
import {
  checkWorth,
  conclusionSentence,
  contradictionText,
  twoFaultsText,
  findingGrounds,
  findingNames,
  findingSentence,
  mindChangerText,
  repairCheckId,
  worthOf,
  type Finding,
  type NextCheck,
} from '@fairwatt/core';
import { aboutMinutes, dayAndTime } from '../../controls/clock.ts';
import { Primary } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { InterlockCard } from '../../job/interlock-card.tsx';
import { CheckCard } from './check-card.tsx';
import { CureCard, type RepairResult } from './cure-card.tsx';
import { Suspects } from './suspects.tsx';
import { Trail } from './trail.tsx';

type SetFinding = (
  kind: Finding['kind'],
  faultId: string | null,
  confirmed: boolean,
  alsoFaultId?: string | null,
) => unknown;

/** How much shorter the search becomes by it, on the whole. */
const savesText = (check: NextCheck): string =>
  worthOf(check) >= 0.05 ? `saves ${aboutMinutes(worthOf(check))}` : 'saves nothing';

/** Alternatives shown before all are asked for. */
const alternatives = 4;

/** What is likely, why, and which check is worth doing next. */
export default function Fault() {
  const desk = useDesk();
  const { job, view, knowledge, act } = desk;
  const [picked, setPicked] = useState<string | null>(null);
  const [all, setAll] = useState(false);
  const { conclusion, step } = view;
  // While something dangerous stands only what needs no power can be picked, and nothing is offered by itself.
  const endangered = step.do === 'make-safe';
  const wanted = picked ?? (step.do === 'check' ? step.checkId : undefined);
  // What is settled offers no check by itself, so that no key answers one by mistake; others can still be picked.
  const settled = step.do === 'finding';
  const chosen =
    view.nextChecks.find((check) => check.checkId === wanted) ??
    (endangered || settled ? undefined : view.nextChecks[0]);
  const cure =
    picked === null && step.do === 'cure' ? knowledge.faults.find((fault) => fault.id === step.faultId) : undefined;
  const decided = job.finding !== null;

  function answer(checkId: string, outcomeId: string, instrumentId: string | null = null): void {
    setPicked(null);
    if (checkId === 'told-button' && outcomeId !== 'unknown')
      act({ kind: 'edit-sheet', changes: { button: outcomeId }, basedOn: job.sheet.version });
    else if (checkId === 'told-course' && outcomeId !== 'unknown')
      act({ kind: 'edit-sheet', changes: { course: outcomeId }, basedOn: job.sheet.version });
    else act({ kind: 'note-outcome', id: crypto.randomUUID(), checkId, outcomeId, instrumentId });
  }
  const setFinding: SetFinding = (kind, faultId, confirmed, alsoFaultId = job.finding?.alsoFaultId ?? null) =>
    act({
      kind: 'set-finding',
      finding: {
        kind,
        faultId,
        confirmed,
        note: job.finding?.note ?? '',
        alsoFaultId: kind === 'fault' && alsoFaultId !== faultId ? alsoFaultId : null,
      },
      basedOn: job.finding?.version ?? 0,
    });
  /** A repair that changed nothing is evidence, and the search goes on in the next round. */
  function repaired(faultId: string, result: RepairResult): void {
    const named = knowledge.faults.find((item) => item.id === faultId);
    if (result !== 'same' && named?.outside === true) setFinding('hand-on', faultId, false);
    else if (result !== 'same' && named?.healthy === true) setFinding('no-fault', null, false);
    else if (result === 'later') setFinding('fault', faultId, false);
    else if (result === 'cured') setFinding('fault', faultId, true);
    else {
      if (named === undefined) return;
      if (
        act({
          kind: 'note-outcome',
          id: crypto.randomUUID(),
          checkId: repairCheckId(named.cure.id),
          outcomeId: 'same',
        }) === null &&
        job.finding !== null
      )
        act({ kind: 'set-finding', finding: null, basedOn: job.finding.version });
    }
  }
  const others = view.nextChecks.filter((check) => check !== chosen || cure !== undefined || decided);

  return (
    <div className="station">
      <div className="work">
        {view.round > 1 && !decided && (
          <p className="round">
            Round {view.round}: what was repaired changed nothing; what is known so far still counts.
          </p>
        )}
        {view.contradiction !== null && view.twoFaults === null && (
          <p className="caution contradiction" role="status">
            <span>{contradictionText(knowledge, view.contradiction)}</span>
          </p>
        )}
        {view.twoFaults !== null && !decided && (
          <p className="caution contradiction" role="status" data-two-faults={view.twoFaults.firstId}>
            <span>{twoFaultsText(knowledge, view.twoFaults)}</span>
          </p>
        )}
        {view.interlocks.map((interlock) => (
          <InterlockCard key={interlock.danger.id} interlock={interlock} />
        ))}
        {job.finding !== null ? (
          <FindingCard finding={job.finding} onRepaired={repaired} setFinding={setFinding} />
        ) : cure !== undefined ? (
          <CureCard
            fault={cure}
            sure={conclusion.state === 'to-prove'}
            onDone={(result) => repaired(cure.id, result)}
          />
        ) : chosen !== undefined ? (
          <CheckCard
            key={chosen.checkId}
            next={chosen}
            onAnswer={(outcomeId, instrumentId) => answer(chosen.checkId, outcomeId, instrumentId)}
          />
        ) : endangered ? null : settled ? (
          <section className="next-check" aria-label="Next step">
            <span className="label">Next step</span>
            <h2>{conclusionSentence(knowledge, conclusion)}</h2>
            <p>Enter sets it. Whatever else is to be tried first stands below.</p>
          </section>
        ) : (
          <section className="next-check" aria-label="Next step">
            <span className="label">Next step</span>
            <h2>Nothing more can be checked here</h2>
            <p>Hand the job on with what is known, or take an answer back.</p>
          </section>
        )}
        <div className="columns">
          <section aria-label="Other checks">
            <span className="label">
              {decided ? 'Checks still possible' : endangered ? 'Without any power' : 'Or do'}
            </span>
            <ul className="alternatives">
              {others.slice(0, all ? undefined : alternatives).map((check) => (
                <li key={check.checkId}>
                  <Button
                    type="text"
                    className="plain"
                    aria-pressed={picked === check.checkId}
                    disabled={decided}
                    onClick={() => setPicked(check.checkId)}
                  >
                    <span className="what">
                      {knowledge.checks.find((item) => item.id === check.checkId)?.title}
                      <span className="reason">{checkWorth(knowledge, check)}</span>
                    </span>
                    <span className="costs quiet nowrap">
                      <span className="fig">{check.minutes} min</span>
                      <span className="saves">{savesText(check)}</span>
                    </span>
                  </Button>
                </li>
              ))}
            </ul>
            <p className="quiet" style={{ marginTop: 6 }}>
              {others.length > alternatives && (
                <Button type="link" aria-expanded={all} onClick={() => setAll(!all)}>
                  {all ? 'fewer checks' : `all ${others.length} checks`}
                </Button>
              )}{' '}
              For what this bench has; <Link to="/settings">change it</Link>.
            </p>
          </section>
          <section aria-label="Done so far">
            <span className="label">Done so far</span>
            <Trail onAnswer={answer} />
          </section>
        </div>
      </div>
      <aside className="side" aria-label="Suspects">
        <span className="label">Suspects{view.round > 1 ? `, round ${view.round}` : ''}</span>
        <p
          className={conclusion.state === 'open' ? 'visually-hidden' : 'quiet'}
          data-conclusion={conclusion.state}
          aria-live="polite"
        >
          {conclusionSentence(knowledge, conclusion)}
        </p>
        {view.twoFaults !== null && (
          <p className="quiet">How likely each is there; with two at once they add up to more than 100%.</p>
        )}
        <Suspects />
        {!decided && <Decide setFinding={setFinding} />}
        {decided && !endangered && <Primary onClick={() => desk.goTo('load')}>Go on to Load</Primary>}
        {!decided && view.mindChangers.length > 0 && conclusion.state !== 'untouched' && (
          <section aria-label="What would change this">
            <span className="label">What would change this</span>
            <ul className="changers">
              {view.mindChangers.map((changer) => (
                <li key={changer.checkId}>{mindChangerText(knowledge, changer)}</li>
              ))}
            </ul>
          </section>
        )}
      </aside>
    </div>
  );
}

function Decide({ setFinding }: { readonly setFinding: SetFinding }) {
  const { view, knowledge, locked } = useDesk();
  const pair = view.twoFaults?.pairs[0]?.faultIds ?? null;
  const { conclusion } = view;
  const handOn = (
    <Button disabled={locked} onClick={() => setFinding('hand-on', null, false)}>
      No finding, hand on
    </Button>
  );
  if (view.step.do === 'make-safe') return <div className="row-actions">{handOn}</div>;
  return (
    <>
      {view.step.do === 'nothing' && conclusion.state !== 'untouched' && (
        <>
          <p>Nothing this bench can do pays for its minutes any more, and nothing is sure enough to buy a part for.</p>
          <Primary disabled={locked} onClick={() => setFinding('hand-on', null, false)}>
            No finding, hand on
          </Primary>
        </>
      )}
      {conclusion.state === 'offered' && (
        <Primary disabled={locked} onClick={() => setFinding('fault', conclusion.leaderId, true)}>
          Set this as the finding
        </Primary>
      )}
      {conclusion.state === 'outside' && (
        <Primary disabled={locked} onClick={() => setFinding('hand-on', conclusion.leaderId, false)}>
          Hand on: not this job
        </Primary>
      )}
      {conclusion.state === 'well' && (
        <Primary disabled={locked} onClick={() => setFinding('no-fault', null, false)}>
          No fault found
        </Primary>
      )}
      <div className="row-actions">
        {pair !== null && (
          <Button disabled={locked} onClick={() => setFinding('fault', pair[0], false, pair[1])}>
            Both: {findingNames(knowledge, { faultId: pair[0], alsoFaultId: pair[1] })}
          </Button>
        )}
        {(conclusion.state === 'open' || conclusion.state === 'to-prove') && (
          <Button disabled={locked} onClick={() => setFinding('fault', conclusion.leaderId, false)}>
            Repair the leader now
          </Button>
        )}
        {conclusion.state !== 'well' && (
          <Button disabled={locked} onClick={() => setFinding('no-fault', null, false)}>
            No fault
          </Button>
        )}
        {view.step.do !== 'nothing' && handOn}
      </div>
    </>
  );
}

function FindingCard({
  finding,
  onRepaired,
  setFinding,
}: {
  readonly finding: Finding;
  readonly setFinding: SetFinding;
  readonly onRepaired: (faultId: string, result: RepairResult) => void;
}) {
  const { job, knowledge, view, locked, act, personName } = useDesk();
  const fault = knowledge.faults.find((item) => item.id === finding.faultId);
  const grounds = findingGrounds(knowledge, finding, view.suspects, view.observations);
  return (
    <section className="next-check" aria-label="Finding">
      <span className="label">Finding</span>
      <h2>{findingSentence(knowledge, finding)}</h2>
      {grounds !== '' && <p style={{ marginTop: 6 }}>{grounds}</p>}
      <p className="quiet" style={{ margin: '6px 0 12px' }}>
        {personName(finding.by)}, {dayAndTime(finding.at)}
        {finding.note === '' ? '' : `. ${finding.note}`}
      </p>
      <div className="row-actions">
        {finding.kind === 'fault' && !finding.confirmed && (
          <Button disabled={locked} onClick={() => onRepaired(fault?.id ?? '', 'cured')}>
            The repair cured it
          </Button>
        )}
        {finding.kind === 'fault' && !finding.confirmed && (
          <Button disabled={locked} onClick={() => onRepaired(fault?.id ?? '', 'same')}>
            It changed nothing: next round
          </Button>
        )}
        {finding.kind === 'fault' && finding.faultId !== null && (
          <Select<string | null>
            aria-label="Another fault was there too"
            placeholder="Another fault was there too"
            value={finding.alsoFaultId}
            allowClear
            disabled={locked}
            popupMatchSelectWidth={false}
            showSearch={{ optionFilterProp: 'label' }}
            onChange={(alsoFaultId: string | null | undefined) =>
              setFinding('fault', finding.faultId, finding.confirmed, alsoFaultId ?? null)
            }
            options={knowledge.faults
              .filter(({ id, healthy, outside }) => id !== finding.faultId && healthy !== true && outside !== true)
              .map(({ id, name }) => ({ value: id, label: name }))}
          />
        )}
        <Button
          disabled={locked}
          onClick={() => act({ kind: 'set-finding', finding: null, basedOn: job.finding?.version ?? 0 })}
        >
          Take the finding back, search on
        </Button>
      </div>
    </section>
  );
}
