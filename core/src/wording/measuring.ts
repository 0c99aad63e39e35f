import type { Forecast, PinExpectation, ProbeVerdict } from '../measure/index.ts';
import type { InletKind } from '../standards/index.ts';
import { voltsText } from './figures.ts';

export const inletName: Record<InletKind, string> = {
  'main-24': '24-pin main', 'main-20': '20-pin main', 'cpu-8': '8-pin processor', 'cpu-4': '4-pin processor', 'card-16': '16-pin card', 'card-8': '8-pin card', 'card-6': '6-pin card',
  sata: 'SATA power', 'peripheral-4': '4-pin peripheral', 'small-drive-4': 'small drive, 4-pin',
};

export const probeWordText: Record<ProbeVerdict['word'], string> = { safe: 'Safe', wrong: 'Wrong', incomplete: 'Incomplete' };

/** What to expect of a rail at the planned load: figure first, then what it means. */
export function forecastText(forecast: Forecast): string {
  const range = `At ${forecast.amps.toFixed(0)} A expect ${voltsText(forecast.interval.low)} to ${voltsText(forecast.interval.high)} V`;
  switch (forecast.word) {
    case 'will-pass': return `${range}: will pass.`;
    case 'will-fail': return `${range}: will fail, the band ends at ${voltsText(forecast.volts < forecast.lower ? forecast.lower : forecast.upper)} V.`;
    case 'cannot-tell': return `${range}: cannot tell, the band ends at ${voltsText(Math.abs(forecast.volts - forecast.lower) < Math.abs(forecast.volts - forecast.upper) ? forecast.lower : forecast.upper)} V. More loads, nearer to the planned one, or a finer meter settle it.`;
  }
}

/** What a pin must show. */
export function pinExpectText(expects: PinExpectation): string {
  const range = expects.kind === 'free' ? '' : `${voltsText(expects.lower)} to ${voltsText(expects.upper)} V`;
  switch (expects.kind) {
    case 'rail': return `${expects.rail === '+5sb' ? '+5 V standby' : `${expects.rail} V`}, ${range}`;
    case 'ground': return `ground, ${range}`;
    case 'signal': return { 'power-good': `power-good, high: ${range}`, start: `the start line, held low: ${range}`, sense: `sense, at ground: ${range}` }[expects.signal];
    case 'free': return 'nothing';
  }
}
