import { normal, seeded } from '@fairwatt/core/simulate';

/** A made-up log as text: a time stamp and three rails 20 ms apart, with a dip of 1 V at every 250,000th row. */
export function logText(rows: number): string {
  const random = seeded(64);
  const lines = ['time,12V,5V,3.3V'];
  const start = Date.UTC(2026, 10, 24, 8);
  for (let row = 0; row < rows; row += 1) {
    const dip = row % 250_000 === 9 ? 1 : 0;
    const volts = [11.95 + 0.01 * normal(random) - dip, 5.02 + 0.003 * normal(random), 3.31 + 0.002 * normal(random)];
    lines.push([new Date(start + row * 20).toISOString(), ...volts.map((value) => value.toFixed(4))].join(','));
  }
  return lines.join('\n');
}
