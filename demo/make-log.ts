// Makes demo/logs/radio-evening.csv: an hour of the radio's playout machine on a logging meter, with what a weak supply
// shows: warming, sag when the encoder works, dips that end the show. Fixed seed.
// node --conditions=fairwatt-source --import tsx demo/make-log.ts
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { normal, seeded } from '@fairwatt/core/simulate';

const random = seeded(1906);
const lines = ['Logging meter, channel A to C;;;', 'time;12V;5V;3.3V'];
const start = Date.UTC(2026, 10, 22, 18, 30);
for (let second = 0; second < 3600; second += 1) {
  const warm = 0.06 * (1 - Math.exp(-second / 700));
  const works = second % 600 > 330;
  const dip = [1512, 2144, 3391].includes(second) ? 0.55 : 0;
  const comma = (value: number) => value.toFixed(3).replace('.', ',');
  const stamp = new Date(start + second * 1000)
    .toISOString()
    .replace(/^(\d+)-(\d+)-(\d+)T(\d+:\d+:\d+).*$/, '$3.$2.$1 $4');
  lines.push(
    [
      stamp,
      comma(11.78 - warm - (works ? 0.34 : 0) - dip + 0.012 * normal(random)),
      comma(5.07 + (works ? 0.04 : 0) + 0.004 * normal(random)),
      comma(3.31 + 0.003 * normal(random)),
    ].join(';'),
  );
}
writeFileSync(fileURLToPath(new URL('logs/radio-evening.csv', import.meta.url)), `${lines.join('\n')}\n`);
