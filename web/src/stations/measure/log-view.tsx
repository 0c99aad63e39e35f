import { useState } from 'react';
import { Button, Progress, Upload } from 'antd';
import { proxy } from 'comlink';
import {
  countText,
  logProblemText,
  logShapeText,
  mostLogColumns,
  type Guide,
  type LogMapping,
  type Phase,
} from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import type { Look, LogSession, Separator } from '../../workers/log-worker.ts';
import { useWorker } from '../../workers/use-worker.ts';
import { looks } from '../../looks/looks.ts';
import { KeptLogs } from './kept-logs.tsx';
import { MappingForm, type State } from './log-mapping.tsx';
import { LogResult } from './log-result.tsx';
import { signs } from '../../controls/signs.tsx';

const unfit: Readonly<Record<Extract<Look, { ok: false }>['problem'], string>> = {
  empty: 'is empty.',
  binary: 'is no text file: export it from the logger as CSV.',
  'no-lines': 'has no line break in its first 64 kB: it is no log with a row for each instant.',
  'too-wide':
    `has more than ${mostLogColumns} columns: it is no log of a few rails over time, or its ` +
    'columns are divided by something else.',
};
const startWorker = () => new Worker(new URL('../../workers/log-worker.ts', import.meta.url), { type: 'module' });

/** Where a file is picked or dropped, and why the last one was not taken. */
function PickLog({ told, onPick }: { readonly told: string | null; readonly onPick: (file: File) => void }) {
  const { locked } = useDesk();
  return (
    <section
      className={`${looks.block} ${looks.empty}`}
      aria-label="New log"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        const file = event.dataTransfer.files[0];
        if (file !== undefined) onPick(file);
      }}
    >
      <strong>A logging meter&apos;s file goes here</strong>
      CSV with a column of time and one for each rail, up to a million rows. It stays on this machine.
      <div className={looks.below}>
        <Upload
          accept=".csv,.txt,.tsv,.log,text/csv,text/plain"
          aria-label="Log file"
          showUploadList={false}
          disabled={locked}
          beforeUpload={(file) => {
            onPick(file);
            return false;
          }}
        >
          <Button icon={signs.file} data-primary disabled={locked}>
            Pick a file
          </Button>
        </Upload>
      </div>
      {told !== null && (
        <p className={`${looks.errorText} ${looks.below}`} role="alert">
          {told}
        </p>
      )}
    </section>
  );
}

function ReadingLog({
  state,
  onStop,
}: {
  readonly state: Extract<State, { at: 'reading' }>;
  readonly onStop: () => void;
}) {
  return (
    <section className={looks.block} aria-label="Reading the log" data-reading>
      <p>
        Reading {state.file.name}: <span className={looks.fig}>{Math.round(state.share * 100)} %</span>,{' '}
        <span className={looks.fig}>{countText(state.rows)}</span> rows
      </p>
      <Progress
        aria-label="Reading the log"
        percent={Math.round(state.share * 100)}
        showInfo={false}
        status="normal"
        strokeLinecap="square"
      />
      <Button icon={signs.stop} onClick={onStop}>
        Stop
      </Button>
    </section>
  );
}

/** How far the reading of a file is, and what leads on. */
function useLogReading(guide: Guide) {
  const session = useWorker<LogSession>(startWorker);
  const [state, setState] = useState<State>({ at: 'none', told: null });

  async function look(file: File, separator: Separator): Promise<void> {
    const found = await session.look(file, separator);
    if (!found.ok) setState({ at: 'none', told: `${file.name} ${unfit[found.problem]}` });
    else
      setState({
        at: 'looked',
        file,
        look: found,
        mapping: found.mapping,
        told: found.problems.length === 0 ? null : found.problems.map(logShapeText).join(' '),
      });
  }
  async function read(file: File, separator: string, mapping: LogMapping, before: State): Promise<void> {
    setState({ at: 'reading', file, share: 0, rows: 0 });
    const result = await session
      .read(
        file,
        separator,
        mapping,
        guide,
        proxy((share: number, rows: number) =>
          setState((now) => (now.at === 'reading' ? { ...now, share, rows } : now)),
        ),
      )
      .catch((error: unknown) => ({ word: 'failed' as const, error: String(error) }));
    if (result.word === 'read') setState({ at: 'read', file, summary: result.summary });
    else if (before.at === 'looked')
      setState({
        ...before,
        told:
          result.word === 'cancelled'
            ? 'Stopped; nothing was kept.'
            : result.word === 'problem'
              ? logProblemText(result.problem)
              : 'The file could not be read to its end. Is it still there?',
      });
  }

  return { session, state, setState, look, read };
}

/** A logging meter's file: how it is read, what it says, what the job keeps of it. */
export function LogView({ phase, guide }: { readonly phase: Phase; readonly guide: Guide }) {
  const { job } = useDesk();
  const { session, state, setState, look, read } = useLogReading(guide);
  const leave = () => setState({ at: 'none', told: null });
  return (
    <>
      {state.at === 'none' && <PickLog told={state.told} onPick={(file) => void look(file, '')} />}
      {state.at === 'looked' && (
        <MappingForm
          state={state}
          onSeparator={(separator) => void look(state.file, separator)}
          onMapping={(mapping) => setState({ ...state, mapping, told: null })}
          onRead={() => void read(state.file, state.look.separator, state.mapping, state)}
          onLeave={leave}
        />
      )}
      {state.at === 'reading' && <ReadingLog state={state} onStop={() => void session.cancel()} />}
      {state.at === 'read' && (
        <LogResult
          key={state.file.name}
          file={state.file}
          summary={state.summary}
          phase={phase}
          guide={guide}
          session={session}
          onLeave={leave}
        />
      )}
      {state.at !== 'read' && job.logs.length > 0 && <KeptLogs guide={guide} />}
    </>
  );
}
