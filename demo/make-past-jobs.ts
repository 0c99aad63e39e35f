// Makes demo/past-jobs/: closed jobs of the demo shop with confirmed faults, drawn from the knowledge with a fixed
// seed. One of the two testers lies more than the other, so that the shop's record has something to say. node
// --conditions=fairwatt-source --import tsx demo/make-past-jobs.ts
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import {
  compileModel,
  newJob,
  triedCureId,
  type Job,
  type Knowledge,
  type NotedOutcome,
  type Observation,
} from '@fairwatt/core';
import { drawJob, ourOrder, pick, seeded } from '@fairwatt/core/simulate';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));
const model = compileModel(JSON.parse(readFileSync(here('../core/knowledge/knowledge.json'), 'utf8')) as Knowledge);
const { instruments, technicians } = JSON.parse(readFileSync(here('shop.json'), 'utf8')) as {
  instruments: { id: string }[];
  technicians: { id: string }[];
};
const bench = { has: ['meter', 'tester', 'spare-supply', 'spare-memory', 'spare-card'], mayMeterMains: false } as const;
const order = ourOrder(model, bench, 0.9);
const random = seeded(20_261);
const clients = [
  'Ferry terminal office',
  'Rope works',
  'Kelp nursery',
  'Signal tower',
  'Chandlery till',
  'Sailing school',
  'Net loft',
  'Pilot station',
  'Boatyard drawing desk',
  'Island post room',
  'Lighthouse museum',
  'Tidewater clinic desk',
  'Harbour kitchen till',
  'Buoy workshop',
];
const words: Readonly<Record<string, string>> = {
  nothing: 'Does nothing at all.',
  'lights-only': 'A light comes on, nothing more.',
  twitch: 'Twitches and stops.',
  'no-picture': 'Runs, but the screen stays dark.',
  'several-tries': 'Starts after several tries.',
  'cuts-load': 'Goes off when it works hard.',
  'cuts-random': 'Goes off now and then.',
  restarts: 'Starts over and over.',
  works: 'Works, but there is something.',
};
/** What each tester says of a bad supply and of a good one, by the outcomes of the check. */
const says = {
  tester: { bad: [22, 44, 18, 12, 4], good: [93, 4, 1, 1, 1] },
  'old-tester': { bad: [74, 14, 6, 4, 2], good: [76, 18, 3, 2, 1] },
} as const;
const wanted = 60;
const first = 61;

const uuid = () => {
  const hex = Array.from({ length: 32 }, (_, index) =>
    index === 12 ? '4' : index === 16 ? '8' : Math.floor(random() * 16).toString(16),
  ).join('');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
};
const testerCheck = model.checks.find((check) => check.id === 'm-tester')!;

function pastJob(number: number): Job | null {
  const drawn = drawJob(model, random);
  const fault = model.faults[model.faultIndex.get(drawn.faultId)!]!;
  if (fault.outside === true || fault.healthy === true) return null;
  const seen: Observation[] = [];
  for (const checkId of ['told-button', 'told-course']) seen.push({ checkId, outcomeId: drawn.outcomes.get(checkId)! });
  const tester = random() < 0.55 ? 'tester' : 'old-tester';
  const bad = fault.group === 'supply' && fault.cure.id === 'replace-supply';
  if (bad || (fault.group !== 'mains' && fault.group !== 'other' && random() < 0.7)) {
    seen.push({
      checkId: 'm-tester',
      outcomeId: testerCheck.outcomes[pick(random, says[tester][bad ? 'bad' : 'good'])]!.id,
    });
  }
  for (let steps = 0; steps < 14; steps += 1) {
    const move = order(seen, drawn);
    if (move.do !== 'check') break;
    const outcomeId = drawn.outcomes.get(move.checkId)!;
    seen.push({ checkId: move.checkId, outcomeId });
    if (
      model.checks[model.checkIndex.get(move.checkId)!]!.outcomes.find(
        (outcome) => outcome.id === outcomeId,
      )?.cures?.includes(drawn.faultId) === true
    )
      break;
  }
  const start = new Date(
    Date.UTC(2026, 1, 2, 9) + Math.floor((number - first) * 4.6) * 86_400_000 + Math.floor(random() * 28) * 900_000,
  ).toISOString();
  const at = (minutes: number) => new Date(Date.parse(start) + minutes * 60_000).toISOString();
  const by = technicians[Math.floor(random() * technicians.length)]!.id;
  const [button, course] = [seen[0]!.outcomeId, seen[1]!.outcomeId];
  const noted = seen.slice(2).filter((item) => triedCureId(item.checkId) === null);
  const outcomes = noted.map((item, index): NotedOutcome => ({
    id: uuid(),
    checkId: item.checkId,
    outcomeId: item.outcomeId,
    instrumentId: item.checkId === 'm-tester' ? tester : null,
    takenBackAt: null,
    by,
    at: at(6 + index * 5),
  }));
  const client = clients[Math.floor(random() * clients.length)]!;
  const job = newJob(
    `LQ-${String(number).padStart(4, '0')}`,
    `${client} machine`,
    client,
    words[button]!,
    'peaks-covered',
    start,
  );
  const done = at(20 + noted.length * 5);
  return {
    ...job,
    updatedAt: done,
    state: 'closed',
    stateVersion: 2,
    closed: { by, at: done },
    sheet: { ...job.sheet, version: 2, button, course },
    outcomes,
    finding: {
      version: 1,
      kind: 'fault',
      faultId: drawn.faultId,
      alsoFaultId: null,
      confirmed: true,
      note: '',
      by,
      at: done,
    },
  };
}

rmSync(here('past-jobs'), { recursive: true, force: true });
mkdirSync(here('past-jobs'), { recursive: true });
for (let number = first; number < first + wanted;) {
  const job = pastJob(number);
  if (job === null) continue;
  const used = new Set(job.outcomes.map((outcome) => outcome.instrumentId));
  const people = new Set([job.closed!.by]);
  const file = {
    format: 'fairwatt-job',
    version: 1,
    exportedAt: job.updatedAt,
    job,
    supplies: [],
    instruments: instruments.filter((instrument) => used.has(instrument.id)),
    technicians: technicians.filter((person) => people.has(person.id)),
  };
  // One line for each outcome keeps the files short and still readable.
  const text = JSON.stringify(file, null, 1).replace(/\{\n\s+"id": "[0-9a-f-]{36}"[^{}]*\}/g, (item) =>
    item.replace(/\n\s*/g, ' '),
  );
  writeFileSync(here(`past-jobs/${job.code}.json`), `${text}\n`);
  number += 1;
}
