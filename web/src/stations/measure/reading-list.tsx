import { useState } from 'react';
import { Button, Input } from 'antd';
import {
  conditionText,
  doubtOf,
  doubtText,
  fittingText,
  isOfFitting,
  parseFigure,
  isPossible,
  subjectText,
  instrumentName,
  type Phase,
  type Reading,
  figureText,
  plainFigure,
  readingValueText,
} from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { clockTime } from '../../controls/clock.ts';
import { Sheet } from '../../controls/sheet.tsx';
import { looks } from '../../looks/looks.ts';
import { signs } from '../../controls/signs.tsx';
import styles from './reading-list.module.css';

function StrikeOrRestore({ reading }: { readonly reading: Reading }) {
  const { act, locked, offerUndo } = useDesk();
  return reading.struckAt === null ? (
    <Button
      type="link"
      disabled={locked}
      aria-label={`Strike ${subjectText[reading.subject]}`}
      onClick={() => {
        if (act({ kind: 'strike-reading', id: reading.id }) === null) offerUndo('The reading is struck.');
      }}
    >
      strike
    </Button>
  ) : (
    <Button
      icon={signs.restore}
      type="link"
      disabled={locked}
      onClick={() => act({ kind: 'restore-reading', id: reading.id })}
    >
      restore
    </Button>
  );
}

/** Every figure that was read, struck ones too, the newest first. */
export function ReadingList({ phase }: { readonly phase: Phase }) {
  const { job, shop, personName } = useDesk();
  const readings = job.readings
    .filter((reading) => reading.phase === phase)
    .slice()
    .reverse();
  if (readings.length === 0) return null;
  return (
    <section aria-label="Readings" className={looks.wellBelow}>
      <span className={looks.label}>Readings</span>
      <Sheet
        rows={readings}
        rowKey={(reading) => reading.id}
        rowProps={(reading) => ({
          className: reading.struckAt === null && isOfFitting(reading, job.choice) ? '' : looks.gone,
        })}
        columns={[
          {
            head: 'Rail',
            cell: (reading) => (
              <>
                {subjectText[reading.subject]}
                {reading.pin === null ? '' : `, pin ${reading.pin.pin}`}
                {!isOfFitting(reading, job.choice) && (
                  <span className={looks.quiet}> of {fittingText(reading.fitting ?? '', shop.supplies)}</span>
                )}
              </>
            ),
          },
          {
            head: 'Figure',
            className: looks.num,
            cell: (reading) => (
              <Figure reading={reading} was={readings.find((other) => other.id === reading.replaces) ?? null} />
            ),
          },
          {
            head: 'Load',
            cell: (reading) => (
              <>
                {conditionText[reading.condition]}
                {reading.loadWatts === null ? '' : `, ${reading.loadWatts} W`}
                {reading.loadAmps === null ? '' : `, ${reading.loadAmps} A`}
              </>
            ),
          },
          {
            head: 'Instrument',
            cell: (reading) => instrumentName(shop.instruments, reading.instrumentId),
          },
          {
            head: 'Who, when',
            className: looks.quiet,
            cell: (reading) => (
              <>
                {personName(reading.by)}, {clockTime(reading.at)}
              </>
            ),
          },
          {
            head: <span className={looks.visuallyHidden}>Acts</span>,
            cell: (reading) => <StrikeOrRestore reading={reading} />,
          },
        ]}
      />
    </section>
  );
}

const valueText = (reading: Reading) => readingValueText(reading.subject, reading.value);

/** A figure that is corrected in place; the old one stays in the list, struck. */
function Figure({ reading, was }: { readonly reading: Reading; readonly was: Reading | null }) {
  const { act, locked } = useDesk();
  const [text, setText] = useState<string | null>(null);
  const [asked, setAsked] = useState(false);
  const figure = text === null ? null : parseFigure(text);
  const doubt = figure === null ? null : doubtOf(reading.subject, figure);
  const possible = figure === null || isPossible(reading.subject, figure);
  if (reading.struckAt !== null) return <>{valueText(reading)}</>;
  if (text === null)
    return (
      <>
        <Button
          type="text"
          className={looks.answer}
          disabled={locked}
          aria-label={`Correct ${subjectText[reading.subject]} ${valueText(reading)}`}
          onClick={() => setText(reading.value.kind === 'figure' ? plainFigure(reading.value.figure) : '')}
        >
          {valueText(reading)}
        </Button>
        {was !== null && (
          <span className={`${looks.quiet} ${looks.blockNote} ${looks.regular}`}>was {valueText(was)}</span>
        )}
      </>
    );
  const keep = () => {
    if (figure === null || !possible) return;
    if (doubt !== null && !asked) {
      setAsked(true);
      return;
    }
    const { by: _by, at: _at, struckAt: _struck, fitting: _fitting, ...kept } = reading;
    if (
      act({
        kind: 'correct-reading',
        reading: { ...kept, id: crypto.randomUUID(), value: { kind: 'figure', figure }, replaces: reading.id },
      }) === null
    )
      setText(null);
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <Input
        className={`${looks.cellInput} ${looks.fig} ${styles.figure}`}
        autoFocus

        aria-label={`New figure for ${subjectText[reading.subject]}`}
        aria-invalid={figure === null}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setAsked(false);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Escape') setText(null);
        }}
        onBlur={() => {
          if (text === (reading.value.kind === 'figure' ? plainFigure(reading.value.figure) : '')) setText(null);
        }}
      />
      {figure === null && <span className={looks.errorText}>a figure, such as {figureText(11.92, 2)}</span>}
      {doubt !== null && (
        <span className={`${looks.errorText} ${looks.regular}`}>
          {doubtText(reading.subject, doubt, possible)}
          {asked ? ' Enter again keeps it all the same.' : ''}
        </span>
      )}
    </form>
  );
}
