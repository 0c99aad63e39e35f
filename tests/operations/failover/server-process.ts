import { spawn, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const program = fileURLToPath(new URL('../../../server/dist/main.js', import.meta.url));

/** A server as a machine of its own would run it. */
export interface ServerProcess {
  readonly url: string;
  readonly end: () => Promise<void>;
}

/** Starts a server on a database whose schema is ready. @throws with what it said when it ends before it is ready */
export function startServerProcess(env: Readonly<Record<string, string>>): Promise<ServerProcess> {
  return new Promise((resolve, reject) => {
    const child: ChildProcess = spawn(process.execPath, [program], {
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, FAIRWATT_SCHEMA: 'ready', FAIRWATT_DEMO: '0', FAIRWATT_PORT: '0', ...env },
    });
    const gone = new Promise<void>((ended) => {
      child.once('exit', () => ended());
    });
    const end = () => {
      child.kill('SIGTERM');
      return gone;
    };
    let said = '';
    child.stderr?.on('data', (chunk: Buffer) => (said += chunk.toString()));
    child.stdout?.on('data', (chunk: Buffer) => {
      said += chunk.toString();
      const url = /^ready (\S+)$/m.exec(said)?.[1];
      if (url !== undefined) resolve({ url, end });
    });
    void gone.then(() => reject(new Error(said)));
  });
}
