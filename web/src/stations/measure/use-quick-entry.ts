import { useEffect, useRef, useState } from 'react';
import type { InputRef } from 'antd';
import {
  bareReading,
  gives,
  isPossible,
  missingRails,
  parseQuickEntry,
  subjectText,
  type Condition,
  type Instrument,
  type Phase,
  type QuickReading,
  readingValueText,
} from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { useKeptLine } from '../../job/use-kept-line.ts';
import { useTypedText } from '../../offline/typed-texts.ts';
import { useMeasuringHabit } from './use-measuring-habit.ts';

/** What a line says, and what stands against keeping it. */
function understand(line: string, absent: ReturnType<typeof missingRails>, instrument: Instrument | undefined) {
  const { readings, problems } = parseQuickEntry(line, absent);
  const impossible = readings.filter(
    ({ subject, value }) => value.kind === 'figure' && !isPossible(subject, value.figure),
  );
  return {
    readings,
    problems,
    doubts: readings.filter(({ doubt }) => doubt !== null),
    impossible,
    notGiven: instrument === undefined ? [] : readings.filter(({ subject }) => !gives(instrument, subject)),
    ready: readings.length > 0 && problems.length === 0 && impossible.length === 0,
  };
}

/** The line of readings: as it is typed, understood, asked about, kept and taken back. */
export function useQuickEntry(phase: Phase, askedFor: Condition | null) {
  const { job, view, act } = useDesk();
  const habit = useMeasuringHabit(askedFor);
  const [text, setText] = useTypedText(`${job.code}.readings`);
  const [asked, setAsked] = useState(false);
  const kept = useKeptLine();
  const field = useRef<InputRef>(null);
  useEffect(() => {
    if (askedFor !== null) field.current?.focus();
  }, [askedFor]);
  const fitted = phase === 'before' ? job.supply?.label : (view.chosen?.label ?? job.supply?.label);
  const understood = understand(text, missingRails(fitted ?? null), habit.instrument);
  const { readings, doubts, ready } = understood;
  const change = (value: string) => {
    setText(value);
    setAsked(false);
  };
  const take = (reading: QuickReading) => {
    const { condition, instrumentId, loadWatts, loadAmps } = habit;
    // The load in the fields is that of the condition beside them.
    const inFields = reading.condition === null || reading.condition === condition;
    return act({
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
  };
  function keep(): void {
    // An empty field has nothing to keep: Enter leaves it, and the next one goes on.
    if (text.trim() === '') field.current?.blur();
    if (!ready || habit.instrument === undefined) return;
    if (doubts.length > 0 && !asked) {
      setAsked(true);
      return;
    }
    if (readings.some((reading) => take(reading) !== null)) return;
    change('');
    kept.keep(
      text,
      '',
      readings
        .map((reading) => `${subjectText[reading.subject]} ${readingValueText(reading.subject, reading.value)}`)
        .join(', '),
    );
  }
  function takeBack(): void {
    const line = kept.takeBack(text);
    if (line === null) return;
    change(line);
    field.current?.focus();
  }
  return { ...understood, habit, text, change, asked, field, keep, takeBack, toldKept: kept.told(text) };
}

export type QuickEntry = ReturnType<typeof useQuickEntry>;
