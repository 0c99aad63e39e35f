import { Button } from 'antd';
import { openPointText, unanswered, type SheetChanges } from '@fairwatt/core';
import { dayAndTime } from '../../controls/clock.ts';
import { Primary, TextField } from '../../controls/fields.tsx';
import { Spoken } from '../../controls/spoken.tsx';
import { useDesk } from '../../job/job-context.ts';
import { NotesAndPictures } from '../../job/notes-and-pictures.tsx';
import { looks } from '../../looks/looks.ts';
import { OldSupplyFate } from './old-supply.tsx';
import { OpenPointRow, useLeadTo } from './open-point-row.tsx';
import { Proofs } from './proofs.tsx';
import { Report } from './report.tsx';
import { signs } from '../../controls/signs.tsx';
import styles from './hand-over.module.css';

/** What goes with the machine: the new supply's number, the bag, what to watch. */
function GoesAlong() {
  const { job, act, locked } = useDesk();
  const put = (changes: SheetChanges) => act({ kind: 'edit-sheet', changes, basedOn: job.sheet.version });
  return (
    <div className={`${looks.fields} ${looks.noPrint} ${styles.oldSupply}`}>
      <TextField
        label="Serial number of the fitted supply"
        maxLength={60}
        value={job.sheet.fittedSerial}
        disabled={locked}
        onChange={(fittedSerial) => put({ fittedSerial })}
      />
      <TextField
        label="Left in the bag"
        wide
        rows={2}
        maxLength={1000}
        value={job.sheet.leftInBag}
        disabled={locked}
        onChange={(leftInBag) => put({ leftInBag })}
      />
      <TextField
        label="What to watch"
        wide
        rows={2}
        maxLength={1000}
        value={job.sheet.watch}
        disabled={locked}
        entry
        onChange={(watch) => put({ watch })}
      />
    </div>
  );
}

/** What was left open, and who answers for it. */
function SignedOff() {
  const { job, view, act, locked, personName } = useDesk();
  const signed = view.openPoints.flatMap((point) =>
    point.signOff === null ? [] : [{ key: point.key, text: openPointText(point), signOff: point.signOff }],
  );
  if (signed.length === 0) return null;
  return (
    <div>
      <span className={looks.label}>Signed off</span>
      <ul>
        {signed.map(({ key, text, signOff }) => (
          <li key={key} className={looks.justBelow}>
            {text}{' '}
            <span className={looks.quiet}>
              “{signOff.reason}”, {personName(signOff.by)}
            </span>{' '}
            {job.state !== 'closed' && (
              <Button type="link" disabled={locked} onClick={() => act({ kind: 'withdraw-sign-off', id: signOff.id })}>
                withdraw
              </Button>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Leads to the next open point, closes, or opens again. */
function MainAct() {
  const { job, view, act, locked, technician } = useDesk();
  const leadTo = useLeadTo();
  const first = unanswered(view.openPoints)[0];
  if (job.state === 'closed')
    return (
      <Button disabled={technician === null} onClick={() => act({ kind: 'reopen', basedOn: job.stateVersion })}>
        Reopen
      </Button>
    );
  return (
    <Primary
      disabled={locked}
      onClick={() => {
        if (first === undefined) act({ kind: 'close', basedOn: job.stateVersion });
        else leadTo(first);
      }}
    >
      {first === undefined ? 'Close the job' : `Next: ${openPointText(first)}`}
    </Primary>
  );
}

/** How the job stands, what is open, and who closed it. */
function OpenPoints() {
  const { job, view, personName } = useDesk();
  const open = unanswered(view.openPoints);
  const closed = job.state === 'closed';
  const openText = closed ? 'Closed' : open.length === 0 ? 'Nothing open' : `${open.length} open`;
  return (
    <>
      <span className={looks.label}>Hand over</span>
      <Spoken>{openText}</Spoken>
      <div className={looks.decides} data-open={open.length}>
        {openText}
      </div>
      {closed && job.closed !== null && (
        <p>
          {personName(job.closed.by)}, {dayAndTime(job.closed.at)}
        </p>
      )}
      <ul className={styles.points}>
        {open.map((point) => (
          <OpenPointRow
            key={point.key}
            point={point}
            alike={open.filter((other) => other.code === point.code && other.key !== point.key)}
          />
        ))}
      </ul>
      <SignedOff />
      {!closed && (
        <p className={looks.caution}>
          {job.sheet.bareSupply
            ? 'It leaves the bench with its label on, whatever it is. Nobody opens it.'
            : 'Rocker on before it is out of reach. The old supply is marked and does not go back on the shelf.'}
        </p>
      )}
    </>
  );
}

/** The report for the client, and what is still open. */
export default function HandOver() {
  const { job, code } = useDesk();
  return (
    <div className={looks.station}>
      <div className={looks.work}>
        <div className={`${looks.rowActions} ${looks.noPrint} ${looks.above}`}>
          <Button icon={signs.print} onClick={() => window.print()}>
            Print the summary
          </Button>
          <Button icon={signs.save} href={`/api/jobs/${code}/file`} download>
            Export the job as a file
          </Button>
        </div>
        <Proofs />
        <Report />
        <section className={`${looks.block} ${looks.noPrint}`} aria-label="Notes and pictures">
          <NotesAndPictures />
        </section>
        {(job.choice?.kind === 'replace' || job.sheet.bareSupply) && <OldSupplyFate />}
        <GoesAlong />
      </div>
      <aside className={looks.side} aria-label="Open points">
        <OpenPoints />
        <MainAct />
      </aside>
    </div>
  );
}
