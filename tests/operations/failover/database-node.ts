import { chownSync, copyFileSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { z } from 'zod';
import {
  clusterPlace,
  deleteCluster,
  livingProcess,
  ownerOf,
  startCluster,
  stopCluster,
  type ClusterOptions,
  type RunningCluster,
} from '../../../command/src/cluster/index.ts';
import { runProgram } from '../../../command/src/cluster/programs.ts';
import { wait } from '../../command.ts';

const recordSchema = z.object({ password: z.string(), port: z.int() });

/** One of two databases of which one follows the other. */
export class DatabaseNode {
  readonly name: string;
  private readonly options: ClusterOptions;
  private running: RunningCluster | null = null;

  constructor(dataFolder: string, name: string, firstPort: number) {
    this.name = name;
    // A power cut is not tried here, so nothing waits for the disk.
    const settings = { fsync: 'off', wal_keep_size: '256MB' };
    this.options = { dataFolder, name, firstPort, settings, say: () => undefined };
  }

  private get cluster(): RunningCluster {
    if (this.running === null) throw new Error(`database ${this.name} was never started`);
    return this.running;
  }

  get port(): number {
    return this.cluster.port;
  }

  url(database: string): string {
    return this.cluster.url(database);
  }

  async start(): Promise<void> {
    this.running = await startCluster(this.options);
  }

  stop(): void {
    stopCluster(this.options);
  }

  remove(): void {
    deleteCluster(this.options);
  }

  async query<Row extends pg.QueryResultRow>(sql: string, database = 'postgres'): Promise<Row[]> {
    const client = new pg.Client({ connectionString: this.url(database) });
    client.on('error', () => undefined);
    await client.connect();
    try {
      return (await client.query<Row>(sql)).rows;
    } finally {
      await client.end();
    }
  }

  /** Makes it a copy of another one that follows it, whatever it was before, and starts it. */
  async follow(other: DatabaseNode): Promise<void> {
    const { dataFolder, name } = this.options;
    const folder = clusterPlace(dataFolder, name, true, () => undefined);
    rmSync(folder, { recursive: true, force: true });
    mkdirSync(folder, { mode: 0o700 });
    const owner = ownerOf(folder);
    if (owner !== null) chownSync(folder, owner.uid, owner.gid);
    const record = (of: string) => join(dataFolder, `cluster-${of}.json`);
    if (this.running === null) {
      copyFileSync(record(other.name), record(name));
      const { password } = recordSchema.parse(JSON.parse(readFileSync(record(name), 'utf8')));
      writeFileSync(record(name), JSON.stringify({ password, port: 0 }));
    }
    const from = ['--dbname', other.url('postgres'), '--write-recovery-conf', '--checkpoint=fast'];
    const copied = runProgram('pg_basebackup', [...from, '--pgdata', folder], owner);
    if (copied.status !== 0) throw new Error(`the copy failed: ${copied.output}`);
    await this.start();
  }

  /** From now on nothing is confirmed that its standby does not have; returns once that one keeps up. */
  async confirmWithStandby(): Promise<void> {
    await this.query("alter system set synchronous_standby_names = '*'");
    await this.query('select pg_reload_conf()');
    for (;;) {
      const [row] = await this.query<{ sync_state: string }>('select sync_state from pg_stat_replication');
      if (row?.sync_state === 'sync') return;
      await wait(50);
    }
  }

  /** Returns once a standby streams from it. */
  async isFollowed(): Promise<void> {
    while ((await this.query("select from pg_stat_replication where state = 'streaming'")).length === 0) await wait(50);
  }

  async promote(): Promise<void> {
    await this.query('select pg_promote(true, 60)');
    await this.query("alter system set synchronous_standby_names = ''");
    await this.query('select pg_reload_conf()');
  }

  /** Holds up what it sends to its standby, as a slow line would. */
  async holdUpLine(): Promise<void> {
    for (const { pid } of await this.query<{ pid: number }>('select pid from pg_stat_replication'))
      process.kill(pid, 'SIGSTOP');
  }

  /** Kills all its processes at once, so that nothing in flight gets through. */
  kill(): void {
    const pid = livingProcess(this.cluster.folder)?.pid;
    if (pid === undefined) throw new Error(`database ${this.name} does not run`);
    const children = readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').map(Number);
    for (const one of [pid, ...children]) process.kill(one, 'SIGKILL');
  }
}
