import type { SheetChanges } from '@fairwatt/core';
import { FigureField, Keys, TextField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { SaidDangers } from '../../job/said-dangers.tsx';
import { looks } from '../../looks/looks.ts';
import { MoreTold } from './more-told.tsx';

const notEmpty = (value: string) => (value.trim() === '' ? 'say which machine it is' : null);

/** What the sheet says, and how it is changed. */
function useSheet() {
  const { job, act, locked } = useDesk();
  const { sheet } = job;
  const edit = (changes: SheetChanges) => {
    act({ kind: 'edit-sheet', changes, basedOn: sheet.version });
  };
  return { sheet, edit, locked };
}

/** What the machine does, and how it came to it. */
function HowItBehaves() {
  const { knowledge } = useDesk();
  const { sheet, edit, locked } = useSheet();
  const outcomes = (checkId: string) =>
    (knowledge.checks.find((check) => check.id === checkId)?.outcomes ?? []).map((outcome) => ({
      value: outcome.id,
      label: outcome.label,
    }));
  return (
    <>
      <div className={looks.block}>
        <span className={looks.label}>Pressing the button does</span>
        <Keys
          label="Pressing the button does"
          value={sheet.button}
          options={outcomes('told-button')}
          disabled={locked}
          onPick={(button) => edit({ button: button === sheet.button ? null : button })}
        />
      </div>
      <div className={looks.block}>
        <span className={looks.label}>How it has gone</span>
        <Keys
          label="How it has gone"
          value={sheet.course}
          options={outcomes('told-course')}
          digits={false}
          disabled={locked}
          onPick={(course) => edit({ course: course === sheet.course ? null : course })}
        />
      </div>
      <MoreTold />
    </>
  );
}

function Ages() {
  const { sheet, edit, locked } = useSheet();
  return (
    <>
      <FigureField
        label="Age of the machine"
        unit="years"
        most={60}
        optional
        value={sheet.machineYears}
        disabled={locked}
        onChange={(machineYears) => edit({ machineYears })}
      />
      <FigureField
        label="Age of the supply"
        unit="years"
        most={60}
        optional
        value={sheet.supplyYears}
        disabled={locked}
        onChange={(supplyYears) => edit({ supplyYears })}
      />
    </>
  );
}

/** What the client says, how it has gone, what is planned. */
export function Complaint() {
  const { sheet, edit, locked } = useSheet();
  return (
    <>
      {!sheet.bareSupply && <HowItBehaves />}
      <div className={looks.fields}>
        <TextField
          label={sheet.bareSupply ? 'What it is' : 'Machine'}
          value={sheet.title}
          maxLength={80}
          disabled={locked}
          problem={notEmpty}
          onChange={(title) => edit({ title })}
        />
        <TextField
          label="Client"
          value={sheet.client}
          maxLength={80}
          disabled={locked}
          onChange={(client) => edit({ client })}
        />
        <TextField
          label="In the client's words"
          wide
          rows={2}
          value={sheet.words}
          maxLength={1000}
          disabled={locked}
          entry
          onChange={(words) => edit({ words })}
        />
        <SaidDangers />
        {!sheet.bareSupply && (
          <TextField
            label="Planned upgrade"
            wide
            value={sheet.upgrade}
            maxLength={500}
            disabled={locked}
            placeholder="None, or what is to go in"
            onChange={(upgrade) => edit({ upgrade })}
          />
        )}
        <TextField
          label="Surroundings"
          wide
          value={sheet.surroundings}
          maxLength={500}
          disabled={locked}
          placeholder="Dust, metal dust, heat, smoke"
          onChange={(surroundings) => edit({ surroundings })}
        />
        <Ages />
      </div>
    </>
  );
}
