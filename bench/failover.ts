import { failover } from '../tests/operations/failover/failover.ts';

// npm run drill:failover -- [ROUNDS] [SEED] [asynchronous]: the long form of what the tests try once. `asynchronous`
// shows what is lost where an act is confirmed before the standby has it.
const [rounds = '20', seed = '1', how = 'synchronous'] = process.argv.slice(2);
const report = await failover({
  rounds: Number(rounds),
  seed: Number(seed),
  synchronous: how !== 'asynchronous',
  say: (text) => console.log(text),
});
console.log(JSON.stringify(report, null, 2));
process.exit(report.wrong.length === 0 && (how === 'asynchronous' || report.lost + report.refused === 0) ? 0 : 1);
