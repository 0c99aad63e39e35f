import { outcomeLabel, percentText, strengthText } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';

const arrows = { strong: 3, fair: 2, slight: 1 } as const;

/** The ranking that moves when an outcome comes in; the leader with what speaks for and against it. */
export function Suspects() {
  const { view, knowledge } = useDesk();
  const shown = view.suspects.slice(0, 6).filter((suspect, index) => index === 0 || suspect.probability >= 0.01);
  const rest = view.suspects.length - shown.length;
  return (
    <>
      <ol className="suspects">
        {shown.map((suspect, index) => {
          const fault = knowledge.faults.find((item) => item.id === suspect.faultId);
          return (
            <li key={suspect.faultId} className={index === 0 ? 'first' : ''} data-suspect={suspect.faultId}>
              <div className="head"><span>{fault?.name}</span><span className="fig nowrap">{percentText(suspect.probability)}</span></div>
              <div className="bar-track"><div className="bar-fill" style={{ width: `${suspect.probability * 100}%` }} /></div>
              {index === 0 && (
                <ul className="evidence">{suspect.evidence.slice(0, 5).map((item) => (
                  <li key={item.checkId}>
                    <span className="weight" role="img" aria-label={`${strengthText[item.strength]} ${item.decibans > 0 ? 'for' : 'against'}`}>{(item.decibans > 0 ? '▲' : '▼').repeat(arrows[item.strength])}</span>
                    <span title={item.why}>{knowledge.checks.find((check) => check.id === item.checkId)?.title}: {outcomeLabel(knowledge, item.checkId, item.outcomeId).toLowerCase()}</span>
                  </li>))}
                </ul>
              )}
            </li>
          );
        })}
      </ol>
      <p className="quiet">{rest} others below.</p>
    </>
  );
}
