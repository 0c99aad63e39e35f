import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { safeStorage } from '../offline/safe-storage.ts';
import type { ThemeName } from './theme.ts';

/** What this browser remembers about who works here and how it looks. */
export interface Session {
  readonly technician: string | null;
  readonly theme: ThemeName;
  readonly newJobAsked: boolean;
}

const themeKey = 'fairwatt.theme';
const technicianKey = 'fairwatt.technician';

function firstTheme(): ThemeName {
  const kept = safeStorage.get(themeKey);
  return kept === 'dark' || kept === 'light'
    ? kept
    : matchMedia('(prefers-color-scheme: dark)').matches
      ? 'dark'
      : 'light';
}

const slice = createSlice({
  name: 'session',
  initialState: (): Session => ({
    technician: safeStorage.get(technicianKey),
    theme: firstTheme(),
    newJobAsked: false,
  }),
  reducers: {
    pickTechnician: (state, { payload }: PayloadAction<string>) => ({ ...state, technician: payload }),
    askNewJob: (state) => ({ ...state, newJobAsked: true }),
    newJobAnswered: (state) => ({ ...state, newJobAsked: false }),
    setTheme: (state, { payload }: PayloadAction<ThemeName>) => ({ ...state, theme: payload }),
  },
});
export const session = slice.actions;
export const sessionReducer = slice.reducer;

export function keepSession({ technician, theme }: Session): void {
  if (technician !== null) safeStorage.set(technicianKey, technician);
  safeStorage.set(themeKey, theme);
}
