import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Phase, RailName } from '@fairwatt/core';
import type { RunningSweepMessage, SweepEnd, SweepEvent, SweepStep } from '@fairwatt/contract';

/** A load sweep as this screen knows it. It runs on the server, and is watched from wherever the technician is. */
export interface WatchedSweep {
  readonly id: string;
  readonly job: string;
  readonly rail: RailName;
  readonly meterId: string;
  readonly loadName: string;
  /** The supply it was started for; null when another screen started it. */
  readonly phase: Phase | null;
  readonly wanted: number;
  readonly setting: number | null;
  readonly steps: readonly SweepStep[];
  /** The events do not come in. */
  readonly lost: boolean;
  /** `server-forgot`: the server was started anew meanwhile. */
  readonly end: { readonly word: SweepEnd | 'server-forgot'; readonly loadOff: boolean } | null;
  readonly kept: boolean;
}

const slice = createSlice({
  name: 'sweep',
  initialState: null as WatchedSweep | null,
  reducers: {
    watched: (
      now,
      { payload }: PayloadAction<{ sweep: RunningSweepMessage; phase: Phase | null }>,
    ): WatchedSweep | null => {
      if (now?.id === payload.sweep.id) return now;
      const { id, job, rail, meterId, loadName, steps } = payload.sweep;
      return {
        id,
        job,
        rail,
        meterId,
        loadName,
        phase: payload.phase,
        wanted: steps,
        setting: null,
        steps: [],
        lost: false,
        end: null,
        kept: false,
      };
    },
    /** The server tells from the start again after a break. */
    opened: (now): WatchedSweep | null => (now === null ? null : { ...now, steps: [], lost: false }),
    came: (now, { payload }: PayloadAction<SweepEvent>): WatchedSweep | null => {
      if (now === null) return null;
      switch (payload.kind) {
        case 'begun':
          return { ...now, wanted: payload.amps.length };
        case 'setting':
          return { ...now, setting: payload.amps };
        case 'step':
          return { ...now, steps: [...now.steps, payload.step] };
        case 'ended':
          return { ...now, end: { word: payload.end, loadOff: payload.loadOff } };
      }
    },
    lost: (now): WatchedSweep | null => (now === null ? null : { ...now, lost: true }),
    forgotten: (now): WatchedSweep | null =>
      now === null || now.end !== null ? now : { ...now, end: { word: 'server-forgot', loadOff: false } },
    kept: (now): WatchedSweep | null => (now === null ? null : { ...now, kept: true }),
    left: (): null => null,
  },
});
export const sweepActions = slice.actions;
export const sweepReducer = slice.reducer;
