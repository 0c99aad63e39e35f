import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { safeStorage } from '../offline/safe-storage.ts';
import type { ThemeName } from './theme.ts';

/** What this browser remembers about who works here and how it looks. */
export interface Session {
  readonly technician: string | null;
  readonly theme: ThemeName;
  readonly newJobAsked: boolean;
  /** Digits and letters act by themselves; Enter, Escape and Ctrl Z always do. */
  readonly singleKeys: boolean;
}

const themeKey = 'fairwatt.theme';
const technicianKey = 'fairwatt.technician';
const singleKeysKey = 'fairwatt.single-keys';

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
    singleKeys: safeStorage.get(singleKeysKey) !== 'off',
  }),
  reducers: {
    pickTechnician: (state, { payload }: PayloadAction<string>) => ({ ...state, technician: payload }),
    askNewJob: (state) => ({ ...state, newJobAsked: true }),
    newJobAnswered: (state) => ({ ...state, newJobAsked: false }),
    setSingleKeys: (state, { payload }: PayloadAction<boolean>) => ({ ...state, singleKeys: payload }),
    setTheme: (state, { payload }: PayloadAction<ThemeName>) => ({ ...state, theme: payload }),
  },
});
export const session = slice.actions;
export const sessionReducer = slice.reducer;

export function keepSession({ technician, theme, singleKeys }: Session): void {
  if (technician !== null) safeStorage.set(technicianKey, technician);
  safeStorage.set(themeKey, theme);
  safeStorage.set(singleKeysKey, singleKeys ? 'on' : 'off');
}
