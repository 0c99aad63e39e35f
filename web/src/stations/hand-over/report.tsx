import {
  bareSentence,
  bareWordText,
  type BareVerdict,
  cableEnds,
  choiceReason,
  clientWords,
  codeText,
  conditionText,
  findingGrounds,
  findingSentence,
  loadSentence,
  observationText,
  outcomeLabel,
  partsAt,
  proofText,
  proofsAsked,
  standingProof,
  subjectText,
  subjects,
  conditions,
  unanswered,
  openPointText,
  verdictLevel,
  verdictText,
  wattsText,
  type InletRow,
  type Job,
  type OldSupply,
  type Verdict,
} from '@fairwatt/core';
import { usePhotosQuery } from '../../app/api.ts';
import { useDesk } from '../../job/job-context.ts';
import { calendarDay } from '../../controls/clock.ts';
import { Sheet } from '../../controls/sheet.tsx';
import { looks, verdictLook } from '../../looks/looks.ts';
import styles from './report.module.css';

/** What became of the old supply, as the client reads it. */
const oldSupplyReport: Readonly<Record<OldSupply, string>> = {
  failed: 'It failed',
  kept: 'It is good, and is kept here',
  'given-back': 'It goes back to you',
};

function cell(verdict: Verdict | undefined) {
  return verdict === undefined ? (
    <span className={looks.quiet}>not read</span>
  ) : (
    <>
      <span className={looks.fig}>{verdictLevel(verdict)}</span>{' '}
      <span className={verdictLook(verdict.word)}>{verdictText[verdict.word]}</span>
    </>
  );
}

function seatText(row: InletRow, personName: (id: string) => string): string {
  switch (row.state) {
    case 'seated':
      return row.seat === null
        ? '✓ seated'
        : `✓ seated, ${personName(row.seat.by)}${row.seat.rechecked === null ? '' : ', looked at again'}`;
    case 'stays':
      return 'stays in, as recorded';
    case 'open':
      return '! no cable';
    case 'wrong':
      return '✕ wrong plug';
    default:
      return '□ to seat';
  }
}

/** What was plugged into an inlet when the machine came. */
function cableBefore(job: Job, inletId: string): string {
  const was = job.cables.find((cable) => cable.plugs.some((plug) => plug.inletId === inletId));
  if (was !== undefined)
    return `${was.label}${was.socketLabel === '' ? '' : `, ${was.socketLabel}`}${was.way === '' ? '' : `: ${was.way}`}`;
  const came = partsAt(job.parts, 'present').some((part) => part.inlets.some((inlet) => inlet.id === inletId));
  return came ? 'not recorded' : 'new';
}

/** What the client reads first. */
function ForTheClient() {
  const { job, view, knowledge } = useDesk();
  const words = clientWords(job, view, knowledge);
  const sections: readonly (readonly [string, readonly string[]])[] = [
    ['What you told us', words.told],
    ['What we found, and how we know', words.found],
    ['What we did', words.did],
    ['Before and after', words.measured],
    [job.sheet.bareSupply ? 'What becomes of it' : 'The supply that came out', words.old],
    ['What to watch', words.watch],
    ['Not finished', words.unsettled],
  ];
  return (
    <section aria-label="For the client" data-client>
      {sections.map(
        ([title, sentences]) =>
          sentences.length > 0 && (
            <div key={title}>
              <h2>{title}</h2>
              {sentences.map((sentence) => (
                <p key={sentence}>{sentence}</p>
              ))}
            </div>
          ),
      )}
    </section>
  );
}

/** What was found, and what was fitted for which load. */
function FoundAndFitted() {
  const { job, view, knowledge } = useDesk();
  const added = job.parts.filter((part) => part.change !== 'stays');
  const checks = view.observations.filter(({ source }) => source !== 'intake');
  return (
    <>
      <h2>Finding</h2>
      <p>
        <strong>{findingSentence(knowledge, job.finding)}</strong>{' '}
        {job.finding !== null && findingGrounds(knowledge, job.finding, view.suspects, view.observations)}{' '}
        {job.finding?.note}
      </p>
      {checks.length > 0 && (
        <p className={looks.quiet}>Checks done: {checks.map((item) => observationText(knowledge, item)).join('; ')}.</p>
      )}
      <h2>What was fitted, and why</h2>
      <p>
        {job.choice === null ? (
          'Nothing was chosen.'
        ) : job.choice.kind === 'keep' ? (
          'The present supply stays.'
        ) : (
          <strong>{view.chosen?.name ?? job.choice.modelId}</strong>
        )}{' '}
        {job.choice !== null && choiceReason(job.choice)}
      </p>
      {added.length > 0 && <p>Upgrade: {added.map((part) => `${part.name} (${part.change})`).join(', ')}.</p>}
      <p>
        Lasting load {wattsText(view.load.planned.sustainedWatts)}.{' '}
        {view.load.plannedAssessment !== null &&
          job.supply !== null &&
          // Of one that has failed it does not matter what it would be enough for.
          (view.standing.word === 'failing'
            ? `The supply that came, ${wattsText(job.supply.label.ratingWatts)}, has failed.`
            : `The supply that came, ${wattsText(job.supply.label.ratingWatts)}: ` +
              loadSentence(view.load.plannedAssessment.word, view.load.plannedAssessment.deciding, true))}
      </p>
    </>
  );
}

/** The verdict on a supply by itself. */
function BareFound({ bare }: { readonly bare: BareVerdict }) {
  const { job } = useDesk();
  const name = job.supply?.name ?? '';
  return (
    <>
      <h2>Verdict</h2>
      <p>
        <strong>{name === '' ? bareWordText[bare.word] : `${name}: ${bareWordText[bare.word]}`}.</strong>{' '}
        {bareSentence(bare)}
      </p>
    </>
  );
}

/** Who brought which machine, and when this was. */
function ReportHead() {
  const { job, shop } = useDesk();
  const { title, client, serial } = job.sheet;
  return (
    <header className={styles.letterhead}>
      <div>
        <strong className={looks.large}>{shop.settings.name}</strong>
        <div>
          {title}
          {client === '' ? '' : `, ${client}`}
          {serial === '' ? '' : `, ${serial}`}
        </div>
      </div>
      <div className={styles.codeAndDay}>
        <span className={`${looks.fig} ${looks.large}`}>{job.code}</span>
        <div className={looks.quiet}>{calendarDay(job.updatedAt)}</div>
      </div>
    </header>
  );
}

function Complaint() {
  const { job, knowledge } = useDesk();
  const { words, button, alsoTold, course } = job.sheet;
  return (
    <>
      <h2>Complaint</h2>
      <p>
        {words === '' ? 'Not written down.' : `“${words}”`}{' '}
        {button !== null &&
          `Pressing the button: ${[button, ...alsoTold]
            .map((told) => outcomeLabel(knowledge, 'told-button', told).toLowerCase())
            .join('; at other times ')}.`}{' '}
        {course !== null && `${outcomeLabel(knowledge, 'told-course', course)}.`}
      </p>
    </>
  );
}

function ReadingsBothTimes() {
  const { job, view } = useDesk();
  const pairs = subjects
    .flatMap((subject) =>
      conditions.map((condition) => ({
        subject,
        condition,
        before: view.before.verdicts.find((item) => item.subject === subject && item.condition === condition),
        after: view.after.verdicts.find((item) => item.subject === subject && item.condition === condition),
      })),
    )
    .filter((pair) => pair.before !== undefined || pair.after !== undefined);
  return (
    <>
      <h2>Readings, before and after</h2>
      {pairs.length === 0 ? (
        <p className={looks.quiet}>None.</p>
      ) : (
        <Sheet
          rows={pairs}
          rowKey={(pair) => `${pair.subject}-${pair.condition}`}
          columns={[
            { head: 'What', cell: (pair) => subjectText[pair.subject] },
            { head: 'Load', cell: (pair) => conditionText[pair.condition] },
            { head: 'Before', cell: (pair) => cell(pair.before) },
            { head: 'After', cell: (pair) => cell(pair.after) },
          ]}
        />
      )}
      {job.readings.some((reading) => reading.value.kind === 'code') && (
        <p className={looks.quiet}>Codes: {Object.values(codeText).join(', ')}.</p>
      )}
    </>
  );
}

const cableText = (row: InletRow): string =>
  cableEnds(row)
    .map((end) => end.cableCode)
    .join(' + ')
    .concat(row.adapterLabel === null ? '' : ` through ${row.adapterLabel}`) || '–';

function CablesBothTimes() {
  const { job, view, personName } = useDesk();
  const { rows, basis } = view.cabling;
  return (
    <>
      <h2>Cables</h2>
      {rows.length === 0 || basis === 'none' ? (
        <p className={looks.quiet}>Not touched.</p>
      ) : (
        <Sheet
          rows={rows}
          rowKey={(row) => row.inletId}
          columns={[
            { head: 'Inlet', cell: (row) => row.label },
            { head: 'Cable', className: looks.fig, cell: cableText },
            { head: 'Socket', cell: (row) => row.socketLabel ?? (row.cableCode === null ? '–' : 'fixed') },
            { head: 'State', cell: (row) => seatText(row, personName) },
            { head: 'Before', className: looks.quiet, cell: (row) => cableBefore(job, row.inletId) },
          ]}
        />
      )}
    </>
  );
}

function SeenAtTheMachine() {
  const { job } = useDesk();
  const shown = proofsAsked(job).flatMap((item) => standingProof(job, item) ?? []);
  if (shown.length === 0) return null;
  return (
    <>
      <h2>Seen at the finished machine</h2>
      <ul>
        {shown.map((proof) => (
          <li key={proof.item}>
            {proof.holds ? '✓' : '✗ does not hold:'} {proofText[proof.item]}
            {proof.note === '' ? '' : ` (${proof.note})`}
          </li>
        ))}
      </ul>
    </>
  );
}

/** What stays behind: the old supply, cables in the bag, what to watch. */
function LeftBehind() {
  const { oldSupply, oldSupplyNote, oldSupplyDisposed, leftInBag, watch } = useDesk().job.sheet;
  return (
    <>
      {oldSupply !== null && (
        <>
          <h2>The supply that came out</h2>
          <p>
            {oldSupplyReport[oldSupply]}
            {oldSupplyNote === '' ? '' : `: ${oldSupplyNote}`}
            {oldSupplyDisposed ? '; given to electrical waste' : ''}.
          </p>
        </>
      )}
      {leftInBag !== '' && (
        <>
          <h2>Left in the bag</h2>
          <p>{leftInBag}</p>
        </>
      )}
      {watch !== '' && (
        <>
          <h2>What to watch</h2>
          <p>{watch}</p>
        </>
      )}
    </>
  );
}

/** What was left undone, and who answers for what. */
function OpenAndSigned() {
  const { job, view, personName } = useDesk();
  const left = unanswered(view.openPoints);
  return (
    <>
      {left.length > 0 && (
        <>
          <h2>Still open</h2>
          <ul>
            {left.map((point) => (
              <li key={point.key}>○ {openPointText(point)}</li>
            ))}
          </ul>
        </>
      )}
      {job.signOffs.length > 0 && (
        <>
          <h2>Signed off</h2>
          <ul>
            {view.openPoints.map(
              (point) =>
                point.signOff !== null && (
                  <li key={point.key}>
                    {openPointText(point)} {point.signOff.reason} ({personName(point.signOff.by)})
                  </li>
                ),
            )}
          </ul>
        </>
      )}
    </>
  );
}

/**
 * The job on paper: to its client in plain words, and behind that the bench's record: what was wrong and how it was
 * found, what was fitted and why, readings, cables.
 */
export function Report() {
  const { bareVerdict } = useDesk().view;
  return (
    <article className={styles.reportSheet} aria-label="Summary">
      <ReportHead />
      <ForTheClient />
      <ChosenNotes />
      <h2 className={styles.annex ?? ''}>The bench’s record</h2>
      <Complaint />
      {bareVerdict === null ? <FoundAndFitted /> : <BareFound bare={bareVerdict} />}
      <ReadingsBothTimes />
      {bareVerdict === null && <CablesBothTimes />}
      <SeenAtTheMachine />
      <LeftBehind />
      <OpenAndSigned />
    </article>
  );
}

/** Notes and pictures that somebody chose for the report. */
function ChosenNotes() {
  const { job, code } = useDesk();
  const { data: photos = [] } = usePhotosQuery(code);
  const chosen = job.notes.filter(({ inReport }) => inReport);
  const words = chosen.filter(({ photoId }) => photoId === null);
  const pictures = chosen.flatMap(({ photoId }) => photos.find(({ id }) => id === photoId) ?? []);
  if (words.length + pictures.length === 0) return null;
  return (
    <section aria-label="Noted" data-noted>
      <h2>What we noted</h2>
      {words.length > 0 && (
        <ul>
          {words.map(({ id, text }) => (
            <li key={id}>{text}</li>
          ))}
        </ul>
      )}
      <div className={styles.pictures}>
        {pictures.map(({ id, caption, widthPixels, heightPixels }) => (
          <figure key={id}>
            <img
              src={`/api/jobs/${encodeURIComponent(code)}/photos/${id}`}
              alt={caption === '' ? 'Picture of this job' : caption}
              width={widthPixels}
              height={heightPixels}
            />
            <figcaption>{caption}</figcaption>
          </figure>
        ))}
      </div>
    </section>
  );
}
