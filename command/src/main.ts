import { backupCommand, restoreCommand } from './backup/index.ts';
import { logs } from './logs.ts';
import { reset } from './reset.ts';
import { serve, stop } from './serve.ts';
import { MissingPackage } from './system.ts';
import { test } from './test.ts';

const usage = `./fairwatt demo               start with the demo shop's data
./fairwatt serve              start without demo data (FAIRWATT_HOST, FAIRWATT_PORT, DATABASE_URL)
./fairwatt serve --lan        the same, for phones and other benches too, with TLS
./fairwatt stop               stop it
./fairwatt reset [--yes]      move all data of this folder aside (--delete deletes it)
./fairwatt backup [FILE]      everything in one file, also while it runs (--nightly FOLDER|off, --hour H)
./fairwatt restore FILE       try a backup, say what it holds, and put it in place (--check, --yes, --at TIME)
./fairwatt serve --shops      serve all shops that were opened, each under its own name
./fairwatt shop VERB NAME     list, open, move, backup, restore, owner-code, close
./fairwatt logs [WHAT]        the last lines of the server's log, or the database's (--lines N)
./fairwatt owner-code         a one-time code that makes an owner, for one who is locked out
./fairwatt test               all checks and tests
./fairwatt compute VERB FILE  verdict, diagnose, load, rank or plan on a JSON file
`;

/** Verbs that take nothing more; whatever else was typed was meant for something, so nothing is started. */
const bareVerbs: readonly (string | undefined)[] = ['demo', 'serve', 'stop', 'owner-code'];

/** Reads core and server, which nothing else that is typed here waits for. */
async function compute(rest: readonly string[]): Promise<number> {
  const [{ computeCommand }, { loadModel }] = await Promise.all([import('./compute.ts'), import('@fairwatt/server')]);
  return computeCommand(rest, () => loadModel());
}

async function main([verb, ...rest]: readonly string[]): Promise<number> {
  if (rest.includes('--help')) {
    process.stdout.write(usage);
    return 0;
  }
  const meant = verb === 'serve' ? rest.filter((word) => word !== '--lan' && word !== '--shops') : rest;
  if (bareVerbs.includes(verb) && meant.length > 0) {
    process.stderr.write(`./fairwatt ${verb} takes nothing more, and “${meant.join(' ')}” was typed.\n\n${usage}`);
    return 2;
  }
  switch (verb) {
    case 'demo':
      return serve('demo');
    case 'serve':
      return serve(rest.includes('--shops') ? 'shops' : 'shop', rest.includes('--lan'));
    case 'stop':
      return stop();
    case 'reset':
      return reset(rest);
    case 'backup':
      return backupCommand(rest);
    case 'restore':
      return restoreCommand(rest);
    case 'shop':
      return (await import('./shops/command.ts')).shopCommand(rest);
    case 'logs':
      return logs(rest);
    case 'owner-code':
      return (await import('./owner-code.ts')).ownerCode();
    case 'test':
      return test(rest);
    case 'compute':
      return compute(rest);
    default:
      process.stderr.write(usage);
      return verb === undefined || verb === 'help' || verb === '--help' ? 0 : 2;
  }
}

/** What the machine itself would not do, in words; other failures are told as they are. */
const ofTheMachine: Readonly<Record<string, string>> = {
  EROFS: 'can only be read: make it writable, or put the data elsewhere with FAIRWATT_DATA',
  EACCES: 'may not be written by this user',
  ENOSPC: 'has no room left: make room and start again; nothing was lost',
};
function failureText(error: unknown): string {
  if (!(error instanceof Error)) return String(error);
  const told = 'code' in error ? ofTheMachine[String(error.code)] : undefined;
  if (told !== undefined) return `${'path' in error ? String(error.path) : 'The disk'} ${told}.`;
  if (error instanceof MissingPackage || process.env['FAIRWATT_DEBUG'] === undefined) return error.message;
  return error.stack ?? error.message;
}

main(process.argv.slice(2)).then(
  (code) => {
    process.exitCode = code;
  },
  (error: unknown) => {
    process.stderr.write(`${failureText(error)}\n`);
    process.exitCode = 1;
  },
);
