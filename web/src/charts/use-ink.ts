import { palettes, type Palette } from '../app/palette.ts';
import { useAppSelector } from '../app/store.ts';

/** The colours of the theme that is on, for what is drawn without styles. */
export const useInk = (): Palette => palettes[useAppSelector((state) => state.session.theme)];
