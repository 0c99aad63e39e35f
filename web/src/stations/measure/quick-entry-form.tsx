import { today } from '../../controls/clock.ts';
import { useEffect, useRef, useState } from 'react';
import { Button, Input, Select, type InputRef } from 'antd';
import { Link } from 'react-router';
import {
  bareReading,
  boardSensorId,
  codeText,
  conditionText,
  conditions,
  doubtText,
  missingRails,
  parseQuickEntry,
  quickProblemText,
  gives,
  isRail,
  subjectText,
  unitOf,
  type Condition,
  type Job,
  type Phase,
  type QuickReading,
} from '@fairwatt/core';
import { Empty } from '../../controls/empty.tsx';
import { FigureField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { safeSession, safeStorage } from '../../offline/safe-storage.ts';
import { NumberPad } from './number-pad.tsx';
import { Choice } from '../../controls/choice.tsx';
import { isUndo } from '../../app/keys.ts';
import { useKeptLine } from '../../job/use-kept-line.ts';

const draftKey = (code: string) => `fairwatt.quick-entry.${code}`;
const figureText = (reading: QuickReading) =>
  reading.value.kind === 'code' ? codeText[reading.value.code] : `${reading.value.figure} ${unitOf(reading.subject)}`;

/** What a person measures with in a job, and how the supply is loaded meanwhile. */
interface Habit {
  readonly instrumentId: string;
  readonly condition: Condition;
}
const habitKey = (code: string, technician: string | null) => `fairwatt.measuring.${code}.${technician ?? ''}`;

/** As it was picked last, in this browser; else as the person's last reading of the job was taken. */
function habitOf(job: Job, technician: string | null): Habit | null {
  const [condition, instrumentId] = (safeStorage.get(habitKey(job.code, technician)) ?? '').split('|');
  const known = conditions.find((item) => item === condition);
  if (known !== undefined && instrumentId !== undefined) return { condition: known, instrumentId };
  return (
    job.readings.findLast(
      ({ by, struckAt, instrumentId: of }) => by === technician && struckAt === null && of !== boardSensorId,
    ) ?? null
  );
}

/** Readings in one field, shown as they are understood; doubtful ones are asked about before they are kept. */
export function QuickEntryForm({
  phase,
  onPhase,
  asked: askedFor,
}: {
  readonly phase: Phase;
  readonly onPhase: (phase: Phase) => void;
  /** The condition in which a reading is asked for now: it is picked, and the field waits for the figure. */
  readonly asked: Condition | null;
}) {
  const { job, view, shop, act, locked, technician } = useDesk();
  const remembered = habitOf(job, technician);
  const [text, setText] = useState(() => safeSession.get(draftKey(job.code)) ?? '');
  const [condition, setCondition] = useState<Condition>(askedFor ?? remembered?.condition ?? 'idle');
  const [instrumentId, setInstrument] = useState(
    () =>
      shop.instruments.find((item) => item.id === remembered?.instrumentId)?.id ??
      shop.instruments.find((item) => item.kind === 'multimeter')?.id ??
      shop.instruments[0]?.id ??
      '',
  );
  const settle = (habit: Habit) => {
    setInstrument(habit.instrumentId);
    if (habit.condition !== condition) {
      setCondition(habit.condition);
      setLoad(null);
      setAmps(null);
    }
    safeStorage.set(habitKey(job.code, technician), `${habit.condition}|${habit.instrumentId}`);
  };
  const pickInstrument = (picked: string) => {
    const tester = shop.instruments.find((item) => item.id === picked)?.kind === 'tester';
    // A hand-held tester has no load to speak of.
    settle({ instrumentId: picked, condition: tester ? 'off-load' : condition });
  };
  const [loadWatts, setLoad] = useState<number | null>(null);
  const [loadAmps, setAmps] = useState<number | null>(null);
  const [asked, setAsked] = useState(false);
  const kept = useKeptLine();
  const toldKept = kept.told(text);
  const field = useRef<InputRef>(null);
  useEffect(() => {
    if (askedFor !== null) field.current?.focus();
  }, [askedFor]);
  const [pad, setPad] = useState(() => safeStorage.get('fairwatt.pad') === 'shown');
  const fitted = phase === 'before' ? job.supply?.label : (view.chosen?.label ?? job.supply?.label);
  const parsed = parseQuickEntry(text, missingRails(fitted ?? null));
  const doubts = parsed.readings.filter((reading) => reading.doubt !== null);
  const impossible = parsed.readings.filter(
    (reading) => isRail(reading.subject) && reading.value.kind === 'figure' && Math.abs(reading.value.figure) > 60,
  );
  const ready = parsed.readings.length > 0 && parsed.problems.length === 0 && impossible.length === 0;
  const instrument = shop.instruments.find((item) => item.id === instrumentId);
  const notGiven = instrument === undefined ? [] : parsed.readings.filter(({ subject }) => !gives(instrument, subject));
  const change = (value: string) => {
    setText(value);
    setAsked(false);
    safeSession.set(draftKey(job.code), value);
  };

  function keep(): void {
    // An empty field has nothing to keep: Enter leaves it, and the next one goes on.
    if (text.trim() === '') field.current?.blur();
    if (!ready || instrument === undefined) return;
    if (doubts.length > 0 && !asked) {
      setAsked(true);
      return;
    }
    for (const reading of parsed.readings) {
      // The load in the fields is that of the condition beside them.
      const inFields = reading.condition === null || reading.condition === condition;
      const refusal = act({
        kind: 'take-reading',
        reading: {
          id: crypto.randomUUID(),
          phase,
          subject: reading.subject,
          condition: reading.condition ?? condition,
          value: reading.value,
          instrumentId,
          ...bareReading,
          loadWatts: reading.loadWatts ?? (inFields ? loadWatts : null),
          loadAmps: reading.loadAmps ?? (inFields ? loadAmps : null),
        },
      });
      if (refusal !== null) return;
    }
    change('');
    kept.keep(
      text,
      '',
      parsed.readings.map((reading) => `${subjectText[reading.subject]} ${figureText(reading)}`).join(', '),
    );
  }
  function takeBack(): void {
    const line = kept.takeBack(text);
    if (line === null) return;
    change(line);
    field.current?.focus();
  }

  if (shop.instruments.length === 0)
    return (
      <Empty title="This shop has no instrument yet">
        A reading is judged by its meter's error. <Link to="/instruments">Enter the meter</Link> first, with what its
        sheet says.
      </Empty>
    );
  return (
    <form
      className="block"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <div className="entry-row">
        <label className="field">
          <span className="name">
            Reading: rail, figure, load <kbd>r</kbd>
          </span>
          <Input
            ref={field}
            data-entry
            className="fig"
            style={{ fontSize: 20, minHeight: 44 }}
            value={text}
            disabled={locked}
            placeholder="12 11.92   5 5.03 work 310w   pg 370"
            autoComplete="off"
            aria-label="Quick entry of readings"
            aria-describedby="quick-understood"
            onChange={(event) => change(event.target.value)}
            onKeyDown={(event) => {
              if (isUndo(event) && toldKept !== null) {
                event.preventDefault();
                takeBack();
              }
            }}
          />
        </label>
        <label className="field">
          <span className="name">Instrument</span>
          <Select
            aria-label="Instrument"
            value={instrumentId}
            disabled={locked}
            onChange={pickInstrument}
            options={[...shop.instruments.map((item) => ({ value: item.id, label: item.name }))]}
          />
        </label>
        <FigureField
          label="Load"
          unit="W"
          optional
          most={5000}
          value={loadWatts}
          disabled={locked}
          onChange={setLoad}
        />
        <FigureField
          label="On the rail"
          unit="A"
          optional
          most={400}
          value={loadAmps}
          disabled={locked}
          onChange={setAmps}
        />
      </div>
      <div style={{ display: 'flex', gap: 14, marginTop: 8, flexWrap: 'wrap', alignItems: 'center' }}>
        <Choice
          label="Load condition"
          value={condition}
          options={conditions.map((value) => ({ value: value, label: conditionText[value] }))}
          onPick={(value) => settle({ instrumentId, condition: value })}
        />
        <Choice
          label="Before or after"
          value={phase}
          options={(['before', 'after'] as const).map((value) => ({
            value: value,
            label: value === 'before' ? 'supply that came' : 'new supply',
          }))}
          onPick={(value) => onPhase(value)}
        />
        <Button
          aria-pressed={pad}
          onClick={() => {
            setPad(!pad);
            safeStorage.set('fairwatt.pad', pad ? 'hidden' : 'shown');
          }}
        >
          Pad
        </Button>
        <Button htmlType="submit" disabled={locked || !ready}>
          {asked ? 'Keep it all the same' : 'Keep'} <kbd aria-hidden="true">↵</kbd>
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
      {instrument?.calibratedUntil != null && instrument.calibratedUntil < today() && (
        <p className="quiet" style={{ marginTop: 6 }}>
          The calibration of {instrument.name} ended on {instrument.calibratedUntil}: its error counts half as much
          again.
        </p>
      )}
      {notGiven.length > 0 && (
        <p className="caution" role="alert">
          <span>
            {instrument?.name} does not give {notGiven.map(({ subject }) => subjectText[subject]).join(', ')}: pick the
            instrument that showed it, or no verdict can be told.
          </span>
        </p>
      )}
      <div id="quick-understood" aria-live="polite" style={{ minHeight: 26, marginTop: 8 }}>
        {parsed.readings.map((reading, index) => (
          <span key={index} style={{ marginRight: 18 }}>
            <strong>{subjectText[reading.subject]}</strong> <span className="fig">{figureText(reading)}</span>{' '}
            <span className="quiet">
              {conditionText[reading.condition ?? condition]}
              {reading.loadWatts === null ? '' : `, ${reading.loadWatts} W`}
              {reading.loadAmps === null ? '' : `, ${reading.loadAmps} A`}
            </span>
          </span>
        ))}
        {toldKept !== null && (
          <span className="quiet">
            Kept {toldKept}.{' '}
            <Button type="link" disabled={locked} onClick={takeBack}>
              take it back
            </Button>{' '}
            <kbd>Ctrl Z</kbd>
          </span>
        )}
        {parsed.problems.map((problem, index) => (
          <span key={index} className="error-text" style={{ display: 'block' }}>
            {quickProblemText(problem)}
          </span>
        ))}
        {doubts.map(
          (reading, index) =>
            reading.doubt !== null && (
              <span
                key={index}
                className={impossible.includes(reading) ? 'error-text' : 'caution'}
                style={{ marginTop: 6 }}
                role="alert"
              >
                {doubtText(reading.subject, reading.doubt)}
                {impossible.includes(reading) ? ' It cannot be kept.' : ''}
              </span>
            ),
        )}
      </div>
    </form>
  );
}
