import { useState } from 'react';
import { boardSensorId, conditions, type Condition, type Instrument, type Job } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { safeStorage } from '../../offline/safe-storage.ts';

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

const firstOf = (instruments: readonly Instrument[], remembered: string | undefined): string =>
  instruments.find((item) => item.id === remembered)?.id ??
  instruments.find((item) => item.kind === 'multimeter')?.id ??
  instruments[0]?.id ??
  '';

/**
 * Instrument, condition and load that the next reading is taken with; kept in this browser.
 * @param askedFor the condition in which a reading is asked for now
 */
export function useMeasuringHabit(askedFor: Condition | null) {
  const { job, shop, technician } = useDesk();
  const remembered = habitOf(job, technician);
  const [condition, setCondition] = useState<Condition>(askedFor ?? remembered?.condition ?? 'idle');
  const [instrumentId, setInstrument] = useState(() => firstOf(shop.instruments, remembered?.instrumentId));
  const [loadWatts, setLoad] = useState<number | null>(null);
  const [loadAmps, setAmps] = useState<number | null>(null);
  const settle = (habit: Habit) => {
    setInstrument(habit.instrumentId);
    if (habit.condition !== condition) {
      setCondition(habit.condition);
      setLoad(null);
      setAmps(null);
    }
    safeStorage.set(habitKey(job.code, technician), `${habit.condition}|${habit.instrumentId}`);
  };
  return {
    condition,
    instrumentId,
    instrument: shop.instruments.find((item) => item.id === instrumentId),
    loadWatts,
    loadAmps,
    setLoad,
    setAmps,
    pickCondition: (picked: Condition) => settle({ instrumentId, condition: picked }),
    pickInstrument: (picked: string) => {
      const tester = shop.instruments.find((item) => item.id === picked)?.kind === 'tester';
      // A hand-held tester has no load to speak of.
      settle({ instrumentId: picked, condition: tester ? 'off-load' : condition });
    },
  };
}
