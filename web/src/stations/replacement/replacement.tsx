import { useState } from 'react';
import { fitReasonText, loadFindingText, moneyText, percentText, schoolText, wattsText, type Candidate } from '@fairwatt/core';
import { Empty } from '../../controls/empty.tsx';
import { Primary } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';

/** The shop's supplies for this machine, best first, each that falls with its reasons; and keeping what is there. */
export default function Replacement() {
  const { job, view, act, locked, inletLabel, goTo } = useDesk();
  const [picked, setPicked] = useState<string | null>(job.choice?.modelId ?? null);
  const [reason, setReason] = useState('');
  const fitting = view.candidates.filter((candidate) => candidate.fits);
  const falling = view.candidates.filter((candidate) => !candidate.fits);
  const shown = view.candidates.find((candidate) => candidate.model.id === picked) ?? fitting[0] ?? falling[0];
  const choose = (kind: 'replace' | 'keep', modelId: string | null, said: string) => act({ kind: 'set-choice', choice: { kind, modelId, reason: said }, basedOn: job.choice?.version ?? 0 });
  if (view.candidates.length === 0 || shown === undefined) return <div className="station"><div className="work"><Empty title="The machine's parts are missing">A supply is chosen for a machine: enter its parts at Intake.</Empty></div><aside className="side"><Primary onClick={() => goTo('intake')}>Enter the parts at Intake</Primary></aside></div>;
  const chosenHere = job.choice?.kind === 'replace' && job.choice.modelId === shown.model.id;
  const said = reason.trim() === '' ? automaticReason(shown) : reason.trim();
  const keepable = view.load.plannedAssessment !== null && view.load.plannedAssessment.word !== 'too-small';
  const move = (event: React.KeyboardEvent, step: number) => {
    const index = view.candidates.indexOf(shown) + step;
    const next = view.candidates[index];
    if (next === undefined) return;
    event.preventDefault();
    setPicked(next.model.id);
    document.querySelector<HTMLElement>(`[data-candidate="${next.model.id}"]`)?.focus();
  };
  const row = (candidate: Candidate) => (
    <button key={candidate.model.id} type="button" role="option" className={`candidate${candidate.fits ? '' : ' falls'}`} aria-selected={candidate === shown} aria-pressed={candidate === shown} data-candidate={candidate.model.id} tabIndex={candidate === shown ? 0 : -1}
      onClick={() => setPicked(candidate.model.id)} onKeyDown={(event) => { if (event.key === 'ArrowDown') move(event, 1); if (event.key === 'ArrowUp') move(event, -1); }}>
      <span className={`verdict ${candidate.fits ? 'pass' : 'fail'}`} aria-label={candidate.fits ? 'fits' : 'falls'} />
      <span style={{ fontWeight: 600 }}>{candidate.model.name}</span>
      <span className="fig">{candidate.model.label.ratingWatts} W</span>
      <span>{candidate.model.label.shape}</span>
      <span className="fig nowrap">{moneyText(candidate.model.price.minor, candidate.model.price.currency)}</span>
      <span className="quiet" style={{ fontSize: 14 }}>{candidate.fits ? `${candidate.model.onShelf > 0 ? `${candidate.model.onShelf} on the shelf` : 'to order'}${candidate.plan.open.length > 0 ? ', an optional inlet stays open' : ''}` : fitReasonText(candidate.reasons[0]!, inletLabel) + (candidate.reasons.length > 1 ? ` (+${candidate.reasons.length - 1})` : '')}</span>
    </button>
  );
  return (
    <div className="station">
      <div className="work">
        <p style={{ marginBottom: 10 }}><strong>{fitting.length} fit</strong>, {falling.length} fall. <span className="quiet">Judged by {schoolText[job.sheet.school].toLowerCase()}. Order: on the shelf first, then all inlets served, lower price, smaller rating.</span></p>
        <div className="candidates" role="listbox" aria-label="Supplies">{fitting.map(row)}{falling.length > 0 && <div className="label" style={{ padding: '14px 6px 6px' }}>These fall, and why</div>}{falling.map(row)}</div>
      </div>
      <aside className="side" aria-label="The supply picked">
        <span className="label">{chosenHere ? 'Chosen' : shown.fits ? (shown === fitting[0] ? 'Best by the rule' : 'Fits') : 'Falls'}</span>
        <div className="decides">{shown.model.name}</div>
        <dl className="facts-list">
          <div><dt>rating, guide</dt><dd>{wattsText(shown.model.label.ratingWatts)}, {shown.model.label.guide}</dd></div>
          <div><dt>lasting load</dt><dd>{percentText(shown.load.loadShare ?? 0)}</dd></div>
          <div><dt>shape, depth</dt><dd>{shown.model.label.shape}, {shown.model.depthMillimetres} mm</dd></div>
          <div><dt>grade, noise</dt><dd>{shown.model.label.grade}{shown.model.noiseDecibels === null ? '' : `, ${Math.round(shown.model.noiseDecibels)} dB`}</dd></div>
          <div><dt>price, warranty</dt><dd>{moneyText(shown.model.price.minor, shown.model.price.currency)}, {shown.model.warrantyYears} y</dd></div>
          <div><dt>cables used</dt><dd>{shown.plan.cables.length}, {shown.plan.bagged.reduce((sum, piece) => sum + piece.count, 0)} in the bag</dd></div>
        </dl>
        {shown.fits ? (shown.load.deciding !== null && <p>Fullest: {loadFindingText(shown.load.deciding)}.</p>) : <ul>{shown.reasons.map((item, index) => <li key={index} className="verdict fail" style={{ whiteSpace: 'normal', fontWeight: 400 }}>{fitReasonText(item, inletLabel)}</li>)}</ul>}
        {shown.plan.open.filter((open) => open.optional).map((open) => <p key={open.inletId}>{inletLabel(open.inletId)} stays open: ordinary use does without it, full boost does not.</p>)}
        {!chosenHere && <label className="field"><span className="name">Why this one</span><input value={reason} maxLength={500} placeholder={automaticReason(shown)} disabled={locked} onChange={(event) => setReason(event.target.value)} /></label>}
        {job.choice === null || !chosenHere
          ? <Primary disabled={locked || (!shown.fits && reason.trim() === '')} onClick={() => { if (choose('replace', shown.model.id, said) === null) goTo('cables'); }}>{shown.fits ? `Choose ${shown.model.name}` : 'Choose all the same (say why)'}</Primary>
          : <Primary onClick={() => goTo('cables')}>Plan its cables</Primary>}
        {job.choice?.kind !== 'keep' && <button type="button" className="secondary" disabled={locked || !keepable} onClick={() => choose('keep', null, reason.trim() === '' ? 'It carries the plan and measures well.' : reason.trim())}>{keepable ? 'Keep the present supply' : 'The present supply cannot stay: too small'}</button>}
        {job.choice !== null && <p className="quiet">{job.choice.kind === 'keep' ? 'The present supply is kept' : `Chosen: ${view.chosen?.name ?? job.choice.modelId}`}. {job.choice.reason} <button type="button" className="link" disabled={locked} onClick={() => act({ kind: 'set-choice', choice: null, basedOn: job.choice!.version })}>take back</button></p>}
      </aside>
    </div>
  );
}

function automaticReason(candidate: Candidate): string {
  return `${candidate.model.onShelf > 0 ? 'On the shelf' : 'To order'}, lasting load ${percentText(candidate.load.loadShare ?? 0)} of its rating, every needed inlet served.`;
}
