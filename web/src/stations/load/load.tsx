import { useState } from 'react';
import { demandOf, durationText, forecastText, inputWatts, loadFindingText, loadSentence, loadWordText, partsAt, schoolBecause, schools, schoolText, wattsText, type LoadFinding, type LoadWord, type MachineMoment } from '@fairwatt/core';
import { Empty } from '../../controls/empty.tsx';
import { Primary } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { ConsumerDrawing } from './consumer-drawing.tsx';

const wordClass: Record<LoadWord, string> = { enough: 'pass', tight: 'tight', 'too-small': 'fail', 'cannot-tell': 'cannot-tell' };
const findingMark: Record<LoadFinding['word'], string> = { covered: 'pass', tight: 'tight', beyond: 'fail', 'not-promised': 'cannot-tell' };
const findingWord: Record<LoadFinding['word'], string> = { covered: 'covered', tight: 'tight', beyond: 'beyond', 'not-promised': 'not promised' };

/** What the machine draws, with and without the upgrade, against the supply it has. */
export default function Load() {
  const { job, view, act, locked, goTo } = useDesk();
  const [moment, setMoment] = useState<MachineMoment>('planned');
  const { load } = view;
  const changed = job.parts.some((part) => part.change !== 'stays');
  const demand = moment === 'planned' ? load.planned : load.present;
  const assessment = moment === 'planned' ? load.plannedAssessment : load.presentAssessment;
  const parts = partsAt(job.parts, moment);
  if (job.parts.length === 0) return <div className="station"><div className="work"><Empty title="The machine's parts are missing">They are entered at Intake, under Parts.</Empty></div><aside className="side"><Primary onClick={() => goTo('intake')}>Enter the parts at Intake</Primary></aside></div>;
  return (
    <div className="station">
      <div className="work">
        <div style={{ display: 'flex', gap: 18, alignItems: 'baseline', marginBottom: 10 }}>
          <div className="tabs" role="group" aria-label="Machine">{(['planned', 'present'] as const).map((value) => <button key={value} type="button" aria-pressed={moment === value} onClick={() => setMoment(value)}>{value === 'planned' ? 'With the upgrade' : 'As it came'}</button>)}</div>
          {!changed && <span className="quiet">No part is added, replaced or removed.</span>}
          {changed && <span className="quiet">{moment === 'planned' ? `${wattsText(load.planned.sustainedWatts - load.present.sustainedWatts)} more than as it came` : 'before the upgrade'}</span>}
        </div>
        <ConsumerDrawing parts={parts.map((part) => ({ id: part.id, name: part.quantity > 1 ? `${part.name} × ${part.quantity}` : part.name, change: part.change, watts: inputWatts(part, part.figures.likelyWatts), shortWatts: Math.max(inputWatts(part, part.figures.shortWatts), inputWatts(part, part.figures.likelyWatts)), figures: part.figures }))} />
        <section aria-label="Sizing schools" style={{ marginTop: 14 }}>
          <span className="label">What each school asks for, with the upgrade</span>
          <div style={{ display: 'grid', gridTemplateColumns: `repeat(${schools.length}, minmax(0, 1fr))`, gap: 8, marginTop: 6 }}>
            {load.schools.map((rating) => (
              <button key={rating.school} type="button" className="key" style={{ display: 'block' }} aria-pressed={job.sheet.school === rating.school} disabled={locked || rating.ratingWatts === null} onClick={() => act({ kind: 'edit-sheet', changes: { school: rating.school }, basedOn: job.sheet.version })}>
                <span style={{ fontWeight: 600 }}>{schoolText[rating.school]}</span>
                <span className="fig" style={{ display: 'block', fontSize: 20 }}>{rating.ratingWatts === null ? 'none' : wattsText(rating.ratingWatts)}</span>
                <span className="hint">{schoolBecause(rating)}</span>
              </button>))}
          </div>
        </section>
        <div className="columns" style={{ marginTop: 16 }}>
          <section aria-label="Against the supply">
            <span className="label">Against {job.supply === null ? 'the supply (not entered)' : job.supply.name === '' ? 'the present supply' : job.supply.name}</span>
            {assessment === null ? <p className="quiet">Enter the supply's label at Intake and every figure gets its limit.</p> : (
              <table className="grid"><tbody>{assessment.findings.filter((finding) => finding.word !== 'not-promised').map((finding) => (
                <tr key={`${finding.code}-${finding.subject}`}><td>{loadFindingText(finding)}</td><td className="num">{finding.ratio === null ? '' : `${Math.round(finding.ratio * 100)} %`}</td><td><span className={`verdict ${findingMark[finding.word]}`}>{findingWord[finding.word]}</span></td></tr>))}
              </tbody></table>
            )}
          </section>
          <section aria-label="On each rail">
            <span className="label">On each rail, lasting</span>
            <table className="grid"><tbody>{(['+12', '+5', '+3.3'] as const).map((rail) => <tr key={rail}><td>{rail} V</td><td className="num">{wattsText(demand.rails[rail].watts)}</td><td className="num">{demand.rails[rail].amps.toFixed(1)} A</td></tr>)}</tbody></table>
            <p className="quiet" style={{ marginTop: 8 }}>Peaks: {demand.peaks.map((peak) => `${durationText(peak.milliseconds)} ${wattsText(peak.watts)}`).join(' · ')}. Idle {wattsText(demand.idleWatts)}, drives starting {wattsText(demand.spinUpWatts)}. Between {wattsText(demand.lowWatts)} and {wattsText(demand.highWatts)} by the parts' ranges.</p>
          </section>
        </div>
      </div>
      <aside className="side" aria-label="Verdict">
        <span className="label">{moment === 'planned' ? 'With the upgrade' : 'As it came'}</span>
        <div className="gauge-big" data-lasting>{Math.round(demand.sustainedWatts)}<span style={{ fontSize: 20 }}> {job.supply === null ? 'W' : `of ${job.supply.label.ratingWatts} W`}</span></div>
        {job.supply !== null && <Gauge share={demandOf(parts).sustainedWatts / job.supply.label.ratingWatts} />}
        {assessment === null ? <p>Enter the supply's label at Intake to have a verdict.</p> : <>
          <span className={`verdict ${wordClass[assessment.word]}`} style={{ fontSize: 24 }} data-verdict={assessment.word}>{loadWordText[assessment.word]}</span>
          <p>{loadSentence(assessment.word, assessment.deciding, moment === 'planned')}</p>
        </>}
        {moment === 'planned' && <MeasuredForecast />}
        {job.supply === null ? <Primary onClick={() => goTo('intake')}>Enter the supply at Intake</Primary>
          : <Primary onClick={() => goTo('replacement')}>{assessment?.word === 'enough' ? 'Keep it or replace it' : 'Choose a replacement'}</Primary>}
      </aside>
    </div>
  );
}

/** What the readings say of the present supply under the planned load; what will pass in one line. */
function MeasuredForecast() {
  const { view, goTo } = useDesk();
  const { forecasts } = view.lines.before;
  if (forecasts.length === 0) return null;
  const doubtful = forecasts.filter(({ planned }) => planned.word !== 'will-pass');
  return (
    <>
      {doubtful.map(({ planned }) => <p key={planned.rail} data-forecast={planned.word}><strong>Measured, {planned.rail} V</strong>: {forecastText(planned)}</p>)}
      {doubtful.length < forecasts.length && <p className="quiet">By its readings {forecasts.filter(({ planned }) => planned.word === 'will-pass').map(({ planned }) => `${planned.rail} V`).join(' and ')} will pass. <button type="button" className="link" onClick={() => goTo('measure')}>Readings</button></p>}
    </>
  );
}

function Gauge({ share }: { readonly share: number }) {
  const shown = Math.min(share, 1.25) / 1.25;
  return (
    <svg viewBox="0 0 300 40" role="img" aria-label={`${Math.round(share * 100)} per cent of the rating`}>
      <rect x={0} y={8} width={300} height={14} style={{ fill: 'var(--track)' }} />
      <rect x={0} y={8} width={300 * shown} height={14} style={{ fill: share > 1 ? 'var(--fail)' : share > 0.8 ? 'var(--marginal)' : 'var(--action)' }} />
      {[0.8, 1].map((mark) => <g key={mark}><line x1={(mark / 1.25) * 300} x2={(mark / 1.25) * 300} y1={4} y2={26} style={{ stroke: 'var(--ink)' }} strokeWidth={2} /><text className="fig" x={(mark / 1.25) * 300} y={38} fontSize={11} textAnchor="middle">{mark * 100} %</text></g>)}
    </svg>
  );
}
