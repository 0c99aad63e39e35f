/** The colours, once: the component library's tokens and the style sheet's variables are both made from these. */
export interface Palette {
  readonly bench: string;
  readonly sheet: string;
  readonly side: string;
  readonly line: string;
  /** Borders of fields and buttons: 3:1 against the sheet. */
  readonly edge: string;
  readonly ink: string;
  readonly ink2: string;
  readonly action: string;
  readonly onAction: string;
  readonly actionSoft: string;
  readonly bar: string;
  readonly onBar: string;
  readonly onBar2: string;
  readonly manila: string;
  readonly onManila: string;
  readonly pass: string;
  readonly marginal: string;
  readonly marginalSoft: string;
  readonly fail: string;
  readonly failSoft: string;
  readonly unknown: string;
  readonly track: string;
}

export const palettes: { readonly light: Palette; readonly dark: Palette } = {
  light: {
    bench: '#DFE5E3',
    sheet: '#FBFCFB',
    side: '#EFF3F1',
    line: '#C3CDC9',
    edge: '#7F8B87',
    ink: '#1C2422',
    ink2: '#4F5B63',
    action: '#0E5A54',
    onAction: '#FFFFFF',
    actionSoft: '#E0EDEA',
    bar: '#1C2422',
    onBar: '#FBFCFB',
    onBar2: '#C9D2CE',
    manila: '#E4C88B',
    onManila: '#1C2422',
    pass: '#35692A',
    marginal: '#8A5600',
    marginalSoft: '#FAEEDB',
    fail: '#A4301E',
    failSoft: '#F8E4DF',
    unknown: '#4A5A68',
    track: '#D3DCD8',
  },
  dark: {
    bench: '#161C1B',
    sheet: '#1E2524',
    side: '#19201F',
    line: '#3A4643',
    edge: '#75827E',
    ink: '#E9EEEC',
    ink2: '#A9B6B2',
    action: '#5CBDB2',
    onAction: '#0B1514',
    actionSoft: '#21403C',
    bar: '#0E1312',
    onBar: '#E9EEEC',
    onBar2: '#A9B6B2',
    manila: '#C6A968',
    onManila: '#15110A',
    pass: '#8CCB7C',
    marginal: '#E5AE55',
    marginalSoft: '#3A2F1B',
    fail: '#F0907E',
    failSoft: '#43231E',
    unknown: '#A9BBCB',
    track: '#34403D',
  },
};

/** Wire colours by the standard; they mark wires, pins and rails and nothing else. */
export type WireColour = 'orange' | 'red' | 'yellow' | 'black' | 'purple' | 'green' | 'grey' | 'blue' | 'white';
export const wire: Readonly<Record<WireColour, { readonly fill: string; readonly text: string }>> = {
  orange: { fill: '#E0812B', text: '#1C1206' },
  red: { fill: '#C23B2E', text: '#FFFFFF' },
  yellow: { fill: '#F0C83A', text: '#1C1806' },
  black: { fill: '#262C2B', text: '#FFFFFF' },
  purple: { fill: '#7A4FA3', text: '#FFFFFF' },
  green: { fill: '#3E8E4B', text: '#FFFFFF' },
  grey: { fill: '#8B9593', text: '#111615' },
  blue: { fill: '#2F62AE', text: '#FFFFFF' },
  white: { fill: '#F2F4F3', text: '#1C2422' },
};
