import { useState } from 'react';
import { Button } from 'antd';
import { outcomeLabel } from '@fairwatt/core';
import { Keys } from '../../controls/fields.tsx';
import { ToggleKeys } from '../../controls/toggle-keys.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import styles from './more-told.module.css';

/** What is kept on the sheet, or follows from it, has its own place. */
const elsewhere = new Set(['told-button', 'told-course', 'told-age']);

/** What else the client may be asked: each is an answer in the search for the fault. */
export function MoreTold() {
  const { knowledge, view, job, act, locked } = useDesk();
  const [open, setOpen] = useState(false);
  const { button, alsoTold, version } = job.sheet;
  const labelOf = (checkId: string, outcomeId: string) => outcomeLabel(knowledge, checkId, outcomeId);
  const optionsOf = (checkId: string) =>
    (knowledge.checks.find(({ id }) => id === checkId)?.outcomes ?? []).map(({ id, label }) => ({ value: id, label }));
  const asked = knowledge.checks.filter(({ id, kind }) => kind === 'told' && !elsewhere.has(id));
  const answerTo = (id: string) => view.observations.find(({ checkId }) => checkId === id);
  const said = [
    ...alsoTold.map((told) => `at other times: ${labelOf('told-button', told)}`),
    ...asked.flatMap(({ id, title }) => {
      const answer = answerTo(id);
      return answer === undefined ? [] : [`${title}: ${labelOf(id, answer.outcomeId)}`];
    }),
  ];

  function pick(checkId: string, outcomeId: string): void {
    const stands = answerTo(checkId);
    if (stands?.outcomeId === outcomeId && stands.notedId !== null)
      act({ kind: 'take-back-outcome', id: stands.notedId });
    else act({ kind: 'note-outcome', id: crypto.randomUUID(), checkId, outcomeId, instrumentId: null });
  }

  return (
    <div className={looks.block}>
      <div className={styles.moreTold}>
        <Button aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Fold up' : 'Other times, smell, shock, moment, place …'}
        </Button>
        {!open && said.length > 0 && <span>{said.join('; ').toLowerCase()}</span>}
      </div>
      {open && (
        <>
          {button !== null && (
            <div className={looks.block}>
              <span className={looks.label}>At other times it did</span>
              <ToggleKeys
                label="At other times it did"
                values={alsoTold}
                options={optionsOf('told-button').filter(({ value }) => value !== button)}
                disabled={locked}
                onChange={(told) => act({ kind: 'edit-sheet', changes: { alsoTold: told }, basedOn: version })}
              />
            </div>
          )}
          {asked.map(({ id, title }) => (
            <div key={id} className={looks.block}>
              <span className={looks.label}>{title}</span>
              <Keys
                label={title}
                value={answerTo(id)?.outcomeId ?? null}
                options={optionsOf(id)}
                digits={false}
                disabled={locked || job.finding !== null}
                onPick={(outcomeId) => pick(id, outcomeId)}
              />
            </div>
          ))}
        </>
      )}
    </div>
  );
}
