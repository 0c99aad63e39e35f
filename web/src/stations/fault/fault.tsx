import { useState } from 'react';
import { checkWorth, conclusionSentence, findingSentence, hazardText, needText, nextStep, outcomeLabel, percentText, type Fault as FaultDefinition, type InletKind, type NextCheck, type SourcedObservation } from '@fairwatt/core';
import { Keys, Primary } from '../../controls/fields.tsx';
import { ConnectorFace } from '../../drawings/connector-face.tsx';
import { useDesk } from '../../job/job-context.ts';
import { Suspects } from './suspects.tsx';
import { clockTime, dayAndTime } from '../../controls/clock.ts';

const sourceMark = { intake: '●', bench: '●', measure: '■', load: '■' } as const;
const sourceText = { intake: 'told', bench: '', measure: 'Measure', load: 'Load' } as const;

/** What is likely, why, and which check is worth doing next. */
export default function Fault() {
  const desk = useDesk();
  const { job, view, knowledge, act, locked } = desk;
  const [picked, setPicked] = useState<string | null>(null);
  const [all, setAll] = useState(false);
  const chosen = view.nextChecks.find((check) => check.checkId === picked) ?? view.nextChecks[0];
  const { conclusion } = view;
  const step = nextStep(desk.shop.model, view.nextChecks, conclusion);
  const cure = picked === null && step.do === 'cure' ? knowledge.faults.find((fault) => fault.id === step.faultId) : undefined;

  function answer(checkId: string, outcomeId: string): void {
    setPicked(null);
    if (checkId === 'told-button' && outcomeId !== 'unknown') act({ kind: 'edit-sheet', changes: { button: outcomeId }, basedOn: job.sheet.version });
    else if (checkId === 'told-course' && outcomeId !== 'unknown') act({ kind: 'edit-sheet', changes: { course: outcomeId }, basedOn: job.sheet.version });
    else act({ kind: 'note-outcome', id: crypto.randomUUID(), checkId, outcomeId });
  }
  const setFinding = (kind: 'fault' | 'no-fault' | 'hand-on', faultId: string | null, confirmed: boolean) => act({ kind: 'set-finding', finding: { kind, faultId, confirmed, note: job.finding?.note ?? '' }, basedOn: job.finding?.version ?? 0 });

  return (
    <div className="station">
      <div className="work">
        {job.finding !== null ? (
          <section className="next-check" aria-label="Finding">
            <span className="label">Finding</span>
            <h2>{findingSentence(knowledge, job.finding)}</h2>
            <p className="quiet" style={{ margin: '6px 0 12px' }}>{desk.personName(job.finding.by)}, {dayAndTime(job.finding.at)}{job.finding.note === '' ? '' : `. ${job.finding.note}`}</p>
            <div className="row-actions">
              {job.finding.kind === 'fault' && !job.finding.confirmed && <button type="button" className="secondary" disabled={locked} onClick={() => setFinding('fault', job.finding!.faultId, true)}>The repair cured it</button>}
              <button type="button" className="secondary" disabled={locked} onClick={() => act({ kind: 'set-finding', finding: null, basedOn: job.finding!.version })}>Take the finding back, search on</button>
            </div>
          </section>
        ) : cure !== undefined ? <CureCard fault={cure} sure={conclusion.state === 'to-prove'} onDone={(cured) => setFinding('fault', cure.id, cured)} /> : chosen !== undefined && <CheckCard next={chosen} onAnswer={(outcomeId) => answer(chosen.checkId, outcomeId)} />}
        <div className="columns">
          <section aria-label="Other checks">
            <span className="label">{job.finding === null ? 'Or do' : 'Checks still possible'}</span>
            <ul className="alternatives">
              {view.nextChecks.filter((check) => check !== chosen || cure !== undefined || job.finding !== null).slice(0, all ? undefined : 7).map((check) => {
                const definition = knowledge.checks.find((item) => item.id === check.checkId);
                return <li key={check.checkId}><button type="button" className="plain" aria-pressed={picked === check.checkId} disabled={job.finding !== null} onClick={() => setPicked(check.checkId)}><span className="what">{definition?.title}</span><span className="fig quiet">{check.minutes} min</span><span className="fig quiet nowrap" title="expected minutes saved">{check.savesMinutes >= 0.05 ? `−${check.savesMinutes.toFixed(1)}` : '0'}</span></button></li>;
              })}
            </ul>
            {view.nextChecks.length > 8 && <button type="button" className="link" style={{ marginTop: 6 }} aria-expanded={all} onClick={() => setAll(!all)}>{all ? 'fewer checks' : `all ${view.nextChecks.length} checks`}</button>}
          </section>
          <section aria-label="Done so far">
            <span className="label">Done so far</span>
            {view.observations.length === 0 && <p className="quiet">Nothing yet.</p>}
            <ul className="trail">{view.observations.map((item) => <TrailRow key={item.checkId} item={item} />)}</ul>
          </section>
        </div>
      </div>
      <aside className="side" aria-label="Suspects">
        <span className="label">Suspects</span>
        <Suspects />
        <p className="quiet" data-conclusion={conclusion.state}>{conclusionSentence(knowledge, conclusion)}</p>
        {job.finding === null && conclusion.state === 'offered' && <Primary disabled={locked} onClick={() => setFinding('fault', conclusion.leaderId, true)}>Set this as the finding</Primary>}
        {job.finding === null && conclusion.state === 'outside' && <Primary disabled={locked} onClick={() => setFinding('hand-on', conclusion.leaderId, false)}>Hand on: not this job</Primary>}
        {job.finding === null && (
          <div className="row-actions">
            {(conclusion.state === 'open' || conclusion.state === 'to-prove') && <button type="button" className="secondary" disabled={locked} onClick={() => setFinding('fault', conclusion.leaderId, false)}>Repair the leader now</button>}
            <button type="button" className="secondary" disabled={locked} onClick={() => setFinding('no-fault', null, false)}>No fault</button>
            <button type="button" className="secondary" disabled={locked} onClick={() => setFinding('hand-on', null, false)}>Hand on</button>
          </div>
        )}
        <NextStation />
      </aside>
    </div>
  );
}

/** The cure as the next step, where no check is worth its minutes any more. */
function CureCard({ fault, sure, onDone }: { readonly fault: FaultDefinition; readonly sure: boolean; readonly onDone: (cured: boolean) => void }) {
  const { locked } = useDesk();
  return (
    <section className="next-check" aria-label="Next step" data-cure={fault.id}>
      <span className="label">Next step</span>
      <div className="top">
        <div>
          <h2>{fault.cure.text}</h2>
          <p style={{ marginTop: 4 }}>{sure ? `${fault.name} is likely enough, and only the repair proves it.` : `No check pays for its minutes any more; ${fault.name.toLowerCase()} leads.`}</p>
          <p className="caution" style={{ marginTop: 10 }}>Rocker off, lead out, press the button once, before any part or plug is moved.</p>
        </div>
        <dl className="facts-list"><div><dt>takes</dt><dd>{fault.cure.minutes} min</dd></div><div><dt>buys a part</dt><dd>{fault.cure.part === true ? 'yes' : 'no'}</dd></div></dl>
      </div>
      <Keys label="What came of it" disabled={locked} options={[{ value: 'cured', label: 'Done, and cured', hint: 'proves the finding' }, { value: 'later', label: 'Set as the finding', hint: 'the repair comes later' }]} onPick={(value) => onDone(value === 'cured')} />
    </section>
  );
}

function NextStation() {
  const { job, goTo } = useDesk();
  if (job.finding === null) return null;
  return <Primary onClick={() => goTo('load')}>Go on to Load</Primary>;
}

function CheckCard({ next, onAnswer }: { readonly next: NextCheck; readonly onAnswer: (outcomeId: string) => void }) {
  const { knowledge, locked } = useDesk();
  const check = knowledge.checks.find((item) => item.id === next.checkId);
  if (check === undefined) return null;
  const [kind, pin] = (check.drawing ?? '').split(':');
  return (
    <section className="next-check" aria-label="Next check" data-check={check.id}>
      <span className="label">Next check</span>
      <div className="top">
        <div>
          <h2>{check.title}</h2>
          <p style={{ marginTop: 4 }}>{checkWorth(knowledge, next)}</p>
          <ol>{check.steps.map((step) => <li key={step}>{step}</li>)}</ol>
          {check.caution !== undefined && <p className="caution">{check.caution}</p>}
        </div>
        <dl className="facts-list">
          <div><dt>takes</dt><dd>{next.minutes} min</dd></div>
          <div><dt>needs</dt><dd>{next.needs.length === 0 ? 'nothing' : next.needs.map((need) => needText[need]).join(', ')}</dd></div>
          <div><dt>hazard</dt><dd>{hazardText[next.hazard]}</dd></div>
          <div><dt>saves about</dt><dd>{Math.max(0, next.savesMinutes).toFixed(1)} min</dd></div>
        </dl>
      </div>
      {pin !== undefined && kind !== undefined && kind !== '' && <figure style={{ marginTop: 10 }}><ConnectorFace kind={kind as InletKind} lit={[Number(pin)]} width={400} /><figcaption className="quiet">Main plug, wires towards you, latch up. Go by the pin, not by the colour.</figcaption></figure>}
      <div className="keys-wrap">
        <Keys label="What came out" disabled={locked} options={[...check.outcomes.map((outcome, index) => ({ value: outcome.id, label: outcome.label, hint: outcome.hint ?? percentText(next.previews.find((preview) => preview.outcomeId === outcome.id)?.probability ?? 0) + ' likely', digit: index + 1 })), { value: 'unknown', label: 'Cannot tell', hint: 'carries no weight', digit: 0 }]} onPick={onAnswer} />
      </div>
    </section>
  );
}

function TrailRow({ item }: { readonly item: SourcedObservation }) {
  const { knowledge, act, locked, job, offerUndo } = useDesk();
  const check = knowledge.checks.find((candidate) => candidate.id === item.checkId);
  const noted = job.outcomes.find((outcome) => outcome.id === item.notedId);
  const takeBack = () => {
    if (item.notedId !== null) {
      if (act({ kind: 'take-back-outcome', id: item.notedId }) === null) offerUndo(`${check?.title ?? item.checkId} is taken back.`, () => act({ kind: 'note-outcome', id: crypto.randomUUID(), checkId: item.checkId, outcomeId: item.outcomeId }));
    } else if (item.source === 'intake') {
      const field = item.checkId === 'told-button' ? 'button' : 'course';
      act({ kind: 'edit-sheet', changes: { [field]: null }, basedOn: job.sheet.version });
    }
  };
  return (
    <li>
      <span aria-hidden="true">{sourceMark[item.source]}</span>
      <span className="what">{check?.title ?? item.checkId}: <strong>{outcomeLabel(knowledge, item.checkId, item.outcomeId)}</strong>{check === undefined && ' (not counted)'}</span>
      <span className="quiet nowrap">{noted === undefined ? sourceText[item.source] : clockTime(noted.at)}</span>
      {(item.source === 'bench' || item.source === 'intake') && <button type="button" className="link" disabled={locked} aria-label={`Take back ${check?.title ?? item.checkId}`} onClick={takeBack}>take back</button>}
    </li>
  );
}
