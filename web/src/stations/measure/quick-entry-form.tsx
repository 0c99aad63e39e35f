import { useState } from 'react';
import { Button, Input, Select } from 'antd';
import { Link } from 'react-router';
import { conditionText, conditions, dayText, subjectText, type Condition, type Phase } from '@fairwatt/core';
import { isUndo } from '../../app/keys.ts';
import { Choice } from '../../controls/choice.tsx';
import { today } from '../../controls/clock.ts';
import { Empty } from '../../controls/empty.tsx';
import { FigureField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { safeStorage } from '../../offline/safe-storage.ts';
import { looks } from '../../looks/looks.ts';
import { NumberPad } from './number-pad.tsx';
import { UnderstoodReadings } from './understood-readings.tsx';
import { useQuickEntry, type QuickEntry } from './use-quick-entry.ts';
import styles from './quick-entry-form.module.css';

interface Props {
  readonly phase: Phase;
  readonly onPhase: (phase: Phase) => void;
  /** The condition in which a reading is asked for now: it is picked, and the field waits for the figure. */
  readonly asked: Condition | null;
}

/** Readings in one field, shown as they are understood; doubtful ones are asked about before they are kept. */
export function QuickEntryForm({ phase, onPhase, asked }: Props) {
  const { shop, locked } = useDesk();
  const entry = useQuickEntry(phase, asked);
  const { text, change, keep } = entry;
  const [pad, setPad] = useState(() => safeStorage.get('fairwatt.pad') === 'shown');
  if (shop.instruments.length === 0)
    return (
      <Empty title="This shop has no instrument yet">
        A reading is judged by its meter's error. <Link to="/instruments">Enter the meter</Link> first, with what its
        sheet says.
      </Empty>
    );
  return (
    <form
      className={looks.block}
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <EntryFields entry={entry} />
      <div className={styles.besides}>
        <Taken entry={entry} phase={phase} onPhase={onPhase} />
        <Button
          aria-pressed={pad}
          onClick={() => {
            setPad(!pad);
            safeStorage.set('fairwatt.pad', pad ? 'hidden' : 'shown');
          }}
        >
          Pad
        </Button>
        <Button htmlType="submit" disabled={locked || !entry.ready}>
          {entry.asked ? 'Keep it all the same' : 'Keep'} <kbd aria-hidden="true">↵</kbd>
        </Button>
      </div>
      {pad && (
        <NumberPad
          disabled={locked}
          onKey={(key) => change(/ $/.test(key) && text !== '' && !text.endsWith(' ') ? `${text} ${key}` : text + key)}
          onBack={() => change(text.trimEnd().slice(0, -1))}
          onKeep={keep}
        />
      )}
      <OfInstrument entry={entry} />
      <UnderstoodReadings entry={entry} />
    </form>
  );
}

/** The line itself, the instrument, and the load in the condition that is picked. */
function EntryFields({ entry }: { readonly entry: QuickEntry }) {
  const { shop, locked } = useDesk();
  const { habit, field, text, change, keep, toldKept, takeBack } = entry;
  return (
    <div className={styles.entryRow}>
      <label className={looks.field}>
        <span className={looks.name}>
          Reading: rail, figure, load <kbd className={looks.single}>r</kbd>
        </span>
        <Input
          ref={field}
          data-entry
          className={`${looks.fig} ${styles.line}`}

          value={text}
          disabled={locked}
          placeholder="12 11.92   5 5.03 work 310w   pg 370"
          autoComplete="off"
          aria-label="Quick entry of readings"
          aria-describedby="quick-understood"
          onChange={(event) => change(event.target.value)}
          onPressEnter={(event) => {
            // A form whose button is disabled hears no Enter.
            event.preventDefault();
            keep();
          }}
          onKeyDown={(event) => {
            if (isUndo(event) && toldKept !== null) {
              event.preventDefault();
              takeBack();
            }
          }}
        />
      </label>
      <label className={looks.field}>
        <span className={looks.name}>Instrument</span>
        <Select
          aria-label="Instrument"
          value={habit.instrumentId}
          disabled={locked}
          onChange={habit.pickInstrument}
          options={shop.instruments.map((item) => ({ value: item.id, label: item.name }))}
        />
      </label>
      <FigureField
        label="Load"
        unit="W"
        optional
        most={5000}
        value={habit.loadWatts}
        disabled={locked}
        onChange={habit.setLoad}
      />
      <FigureField
        label="On the rail"
        unit="A"
        optional
        most={400}
        value={habit.loadAmps}
        disabled={locked}
        onChange={habit.setAmps}
      />
    </div>
  );
}

/** In which condition, and of which supply. */
function Taken({ entry: { habit }, phase, onPhase }: { readonly entry: QuickEntry } & Omit<Props, 'asked'>) {
  return (
    <>
      <Choice
        label="Load condition"
        value={habit.condition}
        options={conditions.map((value) => ({ value, label: conditionText[value] }))}
        onPick={habit.pickCondition}
      />
      <Choice
        label="Before or after"
        value={phase}
        options={(['before', 'after'] as const).map((value) => ({
          value,
          label: value === 'before' ? 'supply that came' : 'new supply',
        }))}
        onPick={onPhase}
      />
    </>
  );
}

/** What the picked instrument cannot say, or no longer says as well as its sheet. */
function OfInstrument({ entry }: { readonly entry: QuickEntry }) {
  const { instrument } = entry.habit;
  if (instrument === undefined) return null;
  return (
    <>
      {instrument.calibratedUntil !== null && instrument.calibratedUntil < today() && (
        <p className={`${looks.quiet} ${looks.justBelow}`}>
          The calibration of {instrument.name} ended on {dayText(instrument.calibratedUntil)}: its error counts half as
          much again.
        </p>
      )}
      {entry.notGiven.length > 0 && (
        <p className={looks.caution} role="alert">
          <span>
            {instrument.name} does not give {entry.notGiven.map(({ subject }) => subjectText[subject]).join(', ')}: pick
            the instrument that showed it, or no verdict can be told.
          </span>
        </p>
      )}
    </>
  );
}
