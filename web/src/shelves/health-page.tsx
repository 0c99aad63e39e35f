import { figureText } from '@fairwatt/core';
import { Link } from 'react-router';
import { leastFreeBytes, oldBackupHours, type Health } from '@fairwatt/contract';
import { problemOf, useHealthQuery, useShopQuery } from '../app/api.ts';
import { useMay } from '../access/use-may.ts';
import { useAppSelector } from '../app/store.ts';
import { dayAndTime } from '../controls/clock.ts';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { unsentOf } from '../offline/summary.ts';
import { Sheet } from '../controls/sheet.tsx';
import { looks, verdictLook, type Mark } from '../looks/looks.ts';

type Level = 'well' | 'look' | 'bad';
interface Line {
  readonly name: string;
  readonly level: Level;
  readonly value: string;
  readonly what: string;
}

const words: Readonly<Record<Level, string>> = { well: 'well', look: 'look at it', bad: 'act now' };
const verdict: Readonly<Record<Level, Mark>> = { well: 'pass', look: 'marginal', bad: 'fail' };
const hour = 3_600_000;

const size = (bytes: number): string =>
  bytes >= 1e9 ? `${figureText(bytes / 1e9, bytes >= 1e10 ? 0 : 1)} GB` : `${figureText(bytes / 1e6, 1)} MB`;

function span(seconds: number): string {
  if (seconds < 120) return `${Math.round(seconds)} s`;
  if (seconds < 7200) return `${Math.round(seconds / 60)} min`;
  return seconds < 172_800 ? `${Math.round(seconds / 3600)} h` : `${Math.round(seconds / 86_400)} days`;
}

function backupLine(backup: Health['backup'], now: number): Line {
  const name = 'Last backup';
  if (backup === null)
    return { name, level: 'look', value: 'none yet', what: './fairwatt backup makes one; serve makes one each night.' };
  const age = (now - Date.parse(backup.at)) / hour;
  if (backup.error !== null)
    return { name, level: 'bad', value: `failed ${dayAndTime(backup.at)}`, what: `${backup.path}: ${backup.error}` };
  return {
    name,
    level: age > oldBackupHours ? 'look' : 'well',
    value: `${span(age * 3600)} old`,
    what: `${backup.jobs} jobs, ${size(backup.bytes)}, ${backup.path}`,
  };
}

function diskLine(disk: Health['disk']): Line {
  const name = 'Room on the disk';
  if (disk === null)
    return { name, level: 'well', value: 'not known', what: 'This server has no data folder of its own.' };
  const level = disk.freeBytes < leastFreeBytes ? 'bad' : disk.freeBytes < 4 * leastFreeBytes ? 'look' : 'well';
  return { name, level, value: `${size(disk.freeBytes)} free`, what: `of ${size(disk.totalBytes)} in all` };
}

function linesOf(health: Health, storage: 'kept' | 'memory', waiting: number, refused: number): Line[] {
  const { database, clock, unsureLoads } = health;
  return [
    {
      name: 'Server',
      level: 'well',
      value: `up ${span(health.upSeconds)}`,
      what: `version ${health.version}, process ${health.pid}`,
    },
    {
      name: 'Database',
      level: 'well',
      value: size(database.bytes),
      what: `PostgreSQL ${database.version}, schema ${database.schema}`,
    },
    diskLine(health.disk),
    backupLine(health.backup, Date.now()),
    {
      name: 'Loads',
      level: unsureLoads.length === 0 ? 'well' : 'bad',
      value: unsureLoads.length === 0 ? 'all off' : 'not sure',
      what: unsureLoads.length === 0 ? 'No load is left drawing.' : `Switch off by hand: ${unsureLoads.join(', ')}`,
    },
    {
      name: 'Clock',
      level: clock === null ? 'well' : 'look',
      value: clock === null ? 'runs even' : `set by ${clock.seconds} s`,
      what:
        clock === null
          ? 'It was not set since the server started.'
          : `${dayAndTime(clock.at)}: times before and after do not compare.`,
    },
    {
      name: 'This browser',
      level: storage === 'memory' || refused > 0 ? 'look' : 'well',
      value: waiting + refused === 0 ? 'nothing unsent' : `${waiting} unsent, ${refused} refused`,
      what:
        storage === 'kept' ? 'What is unsent survives a reload.' : 'It keeps nothing: a reload loses what is unsent.',
    },
  ];
}

/** How the application is: what an owner looks at now and then, and when something seems wrong. */
export default function HealthPage() {
  const health = useHealthQuery(undefined, { pollingInterval: 10_000, refetchOnMountOrArgChange: true });
  const shop = useShopQuery();
  const storage = useAppSelector((state) => state.outbox.storage);
  const { waiting, refused } = useAppSelector((state) => unsentOf(state, null));
  const people = shop.data?.technicians ?? [];
  const owner = useMay('own');
  if (shop.data !== undefined && !owner)
    return (
      <div className={looks.page}>
        <Empty title="The state of the application">
          Only an owner looks at it. Owners are{' '}
          {people
            .filter((person) => person.role === 'owner')
            .map((person) => person.name)
            .join(', ') || 'not entered yet'}
          .
        </Empty>
      </div>
    );
  if (health.data === undefined)
    return health.isError ? (
      <div className={looks.page}>
        <Empty title={problemOf(health.error).title}>It is asked again by itself.</Empty>
      </div>
    ) : (
      <Waiting className={looks.page}>Asking the server …</Waiting>
    );
  const lines = linesOf(health.data, storage, waiting, refused);
  const worst = lines.find((line) => line.level === 'bad') ?? lines.find((line) => line.level === 'look');
  return (
    <div className={looks.page} data-health={worst?.level ?? 'well'}>
      <h1>State of the application</h1>
      <p>
        <Link to="/settings">Back to Settings</Link>
      </p>
      <p className={`${looks.decides} ${verdictLook(verdict[worst?.level ?? 'well'])}`}>
        {worst === undefined ? 'Everything is well.' : `${worst.name}: ${worst.value}.`}
      </p>
      <Sheet
        rows={lines}
        rowKey={(line) => line.name}
        columns={[
          { head: 'What', names: true, cell: (line) => line.name },
          {
            head: 'How it is',
            cell: (line) => <span className={verdictLook(verdict[line.level])}>{words[line.level]}</span>,
          },
          { head: 'Figure', className: looks.fig, cell: (line) => line.value },
          { head: 'More', className: looks.quiet, cell: (line) => line.what },
        ]}
      />
      <p className={looks.quiet}>
        ./fairwatt logs shows what the server wrote down, ./fairwatt logs database what its database did.
      </p>
    </div>
  );
}
