import { useState } from 'react';
import { Button, Checkbox } from 'antd';
import { useNavigate } from 'react-router';
import type { CablesWay } from '../cables/cables.tsx';
import { openPointText, unanswered, type OpenPoint, type OpenPointCode, type StationId } from '@fairwatt/core';
import { Primary, TextField } from '../../controls/fields.tsx';
import { ReasonForm } from '../../controls/reason-form.tsx';
import { useDesk } from '../../job/job-context.ts';
import { NotesAndPictures } from '../../job/notes.tsx';
import { OldSupplyFate } from './old-supply.tsx';
import { Proofs } from './proofs.tsx';
import { Report } from './report.tsx';
import { dayAndTime } from '../../controls/clock.ts';
import { Spoken } from '../../controls/spoken.tsx';

/** The report for the client, and what is still open. */
export default function HandOver() {
  const { job, view, act, locked, technician, code, personName } = useDesk();
  const leadTo = useLeadTo();
  const open = unanswered(view.openPoints);
  const signed = view.openPoints.filter((point) => point.signOff !== null);
  const closed = job.state === 'closed';
  const openText = closed ? 'Closed' : open.length === 0 ? 'Nothing open' : `${open.length} open`;
  const first = open[0];
  return (
    <div className="station">
      <div className="work">
        <div className="row-actions no-print" style={{ marginBottom: 12 }}>
          <Button onClick={() => window.print()}>Print the summary</Button>
          <Button href={`/api/jobs/${code}/file`} download>
            Export the job as a file
          </Button>
        </div>
        <Proofs />
        <Report />
        <section className="block no-print" aria-label="Notes and pictures">
          <NotesAndPictures />
        </section>
        {(job.choice?.kind === 'replace' || job.sheet.bareSupply) && <OldSupplyFate />}
        <div className="fields no-print" style={{ marginTop: 18, maxWidth: 760 }}>
          <TextField
            label="Serial number of the fitted supply"
            maxLength={60}
            value={job.sheet.fittedSerial}
            disabled={locked}
            onChange={(fittedSerial) =>
              act({ kind: 'edit-sheet', changes: { fittedSerial }, basedOn: job.sheet.version })
            }
          />
          <TextField
            label="Left in the bag"
            wide
            rows={2}
            maxLength={1000}
            value={job.sheet.leftInBag}
            disabled={locked}
            onChange={(leftInBag) => act({ kind: 'edit-sheet', changes: { leftInBag }, basedOn: job.sheet.version })}
          />
          <TextField
            label="What to watch"
            wide
            rows={2}
            maxLength={1000}
            value={job.sheet.watch}
            disabled={locked}
            entry
            onChange={(watch) => act({ kind: 'edit-sheet', changes: { watch }, basedOn: job.sheet.version })}
          />
        </div>
      </div>
      <aside className="side" aria-label="Open points">
        <span className="label">Hand over</span>
        <Spoken>{openText}</Spoken>
        <div className="decides" data-open={open.length}>
          {openText}
        </div>
        {closed && job.closed !== null && (
          <p>
            {personName(job.closed.by)}, {dayAndTime(job.closed.at)}
          </p>
        )}
        <ul style={{ display: 'grid', gap: 12 }}>
          {open.map((point) => (
            <OpenPointRow
              key={point.key}
              point={point}
              alike={open.filter((other) => other.code === point.code && other.key !== point.key)}
            />
          ))}
        </ul>
        {signed.length > 0 && (
          <div>
            <span className="label">Signed off</span>
            <ul>
              {signed.map((point) => (
                <li key={point.key} style={{ marginTop: 6 }}>
                  {openPointText(point)}{' '}
                  <span className="quiet">
                    “{point.signOff!.reason}”, {personName(point.signOff!.by)}
                  </span>{' '}
                  {!closed && (
                    <Button
                      type="link"
                      disabled={locked}
                      onClick={() => act({ kind: 'withdraw-sign-off', id: point.signOff!.id })}
                    >
                      withdraw
                    </Button>
                  )}
                </li>
              ))}
            </ul>
          </div>
        )}
        {!closed && (
          <p className="caution">
            {job.sheet.bareSupply
              ? 'It leaves the bench with its label on, whatever it is. Nobody opens it.'
              : 'Rocker on before it is out of reach. The old supply is marked and does not go back on the shelf.'}
          </p>
        )}
        {closed ? (
          <Button disabled={technician === null} onClick={() => act({ kind: 'reopen', basedOn: job.stateVersion })}>
            Reopen
          </Button>
        ) : (
          <Primary
            disabled={locked}
            onClick={() => {
              if (first === undefined) act({ kind: 'close', basedOn: job.stateVersion });
              else leadTo(first);
            }}
          >
            {first === undefined ? 'Close the job' : `Next: ${openPointText(first)}`}
          </Primary>
        )}
      </aside>
    </div>
  );
}

const station: Readonly<Record<OpenPointCode, StationId>> = {
  danger: 'fault',
  'no-finding': 'fault',
  'not-confirmed': 'fault',
  'no-choice': 'replacement',
  'inlet-open': 'cables',
  'inlet-wrong': 'cables',
  'not-seated': 'cables',
  'not-rechecked': 'cables',
  'plan-breach': 'cables',
  'plug-misfit': 'cables',
  'found-adapter': 'cables',
  'not-recorded': 'cables',
  'take-out-open': 'cables',
  'refit-open': 'cables',
  'lead-out': 'cables',
  'leads-unsaid': 'cables',
  'not-shown': 'hand-over',
  'shown-wrong': 'hand-over',
  'no-readings-after': 'measure',
  'old-supply-unmarked': 'hand-over',
  'fails-after': 'measure',
  'bare-unjudged': 'measure',
  'failed-kept': 'hand-over',
};

/** Points that have a way of their own at Cables. */
const wayOf: Readonly<Partial<Record<OpenPointCode, CablesWay>>> = {
  'lead-out': 'leads',
  'leads-unsaid': 'leads',
  'not-recorded': 'was',
  'take-out-open': 'out',
  'refit-open': 'refit',
};

/** Leads to where an open point is settled: another station, a way through it, or the row on this one. */
function useLeadTo(): (point: OpenPoint) => void {
  const { goTo, code } = useDesk();
  const navigate = useNavigate();
  return (point) => {
    const way = wayOf[point.code];
    if (way !== undefined) void navigate(`/jobs/${code}/cables?way=${way}`);
    else if (station[point.code] !== 'hand-over') goTo(station[point.code]);
    else if (point.code === 'old-supply-unmarked' || point.code === 'failed-kept')
      document.querySelector<HTMLElement>('[data-old-supply] .key')?.focus();
    else document.querySelector<HTMLElement>(`[data-proof="${point.subject ?? ''}"] .key`)?.focus();
  };
}

function OpenPointRow({
  point,
  alike,
}: {
  readonly point: OpenPoint;
  /** The other open points of the same kind, which can be answered for together. */
  readonly alike: readonly OpenPoint[];
}) {
  const text = openPointText(point);
  const { act, locked } = useDesk();
  const leadTo = useLeadTo();
  const [asked, setAsked] = useState(false);
  const [together, setTogether] = useState(false);
  return (
    <li>
      <Button type="text" className="plain" onClick={() => leadTo(point)}>
        ○ <span style={{ textDecoration: 'underline', textUnderlineOffset: 3 }}>{text}</span>
      </Button>
      {!asked ? (
        <Button type="link" disabled={locked} aria-label={`Sign off: ${text}`} onClick={() => setAsked(true)}>
          sign off
        </Button>
      ) : (
        <ReasonForm
          label={`Reason for leaving open: ${text}`}
          placeholder="Why may it stay open?"
          act="Sign"
          onCancel={() => setAsked(false)}
          onReason={(reason) => {
            for (const { key } of together ? [point, ...alike] : [point])
              act({ kind: 'sign-off', id: crypto.randomUUID(), point: key, reason });
          }}
        >
          {alike.length > 0 && point.code !== 'danger' && (
            <Checkbox checked={together} onChange={(event) => setTogether(event.target.checked)}>
              and the {alike.length === 1 ? 'other one' : `${alike.length} others`} of this kind
            </Checkbox>
          )}
        </ReasonForm>
      )}
    </li>
  );
}
