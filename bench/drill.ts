import { drill } from '../tests/operations/drill/drill.ts';

// npm run drill -- [KILLS] [SEED]: the long form of the drill that the tests run with 30 kills.
const [kills = '1000', seed = '1'] = process.argv.slice(2);
const begun = performance.now();
const report = await drill(Number(kills), Number(seed), (text) => {
  console.log(`${((performance.now() - begun) / 60_000).toFixed(1)} min: ${text}`);
});
console.log(JSON.stringify(report, null, 2));
console.log(`${((performance.now() - begun) / 60_000).toFixed(1)} min`);
process.exit(report.wrong.length === 0 && report.refused === 0 ? 0 : 1);
