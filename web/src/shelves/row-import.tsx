import { useState } from 'react';
import { Button, Checkbox, Progress } from 'antd';
import type { ImportReport } from '@fairwatt/contract';
import { problemOf, useImportFileMutation } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { FileButton } from '../controls/file-button.tsx';
import { Sheet } from '../controls/sheet.tsx';
import { Dialog } from '../controls/dialog.tsx';
import { looks, verdictLook } from '../looks/looks.ts';
import styles from './row-import.module.css';

const resultText = {
  added: 'new',
  updated: 'changed',
  same: 'as it is',
  known: 'left alone',
  refused: 'refused',
} as const;
const resultMark = {
  added: 'pass',
  updated: 'pass',
  same: 'pass',
  known: 'cannot-tell',
  refused: 'fail',
} as const satisfies Record<keyof typeof resultText, string>;

interface ReadFile {
  readonly format: 'csv' | 'json';
  readonly text: string;
  readonly file: string;
}
type ImportPath = '/supplies/import' | '/supplies/parts/import' | '/supplies/prices';
/** Rows named at most. */
const mostNamed = 100;

/** A file, what it would do, and then what it did. */
function useRowImport(path: ImportPath) {
  const technician = useAppSelector((state) => state.session.technician);
  const [send, { isLoading }] = useImportFileMutation();
  const [read, setRead] = useState<ReadFile | null>(null);
  const [report, setReport] = useState<ImportReport | null>(null);
  const [told, setTold] = useState<string | null>(null);
  const [share, setShare] = useState<{ readonly rows: number; readonly of: number } | null>(null);
  async function run({ format, text }: ReadFile, dryRun: boolean, update: boolean): Promise<void> {
    setTold(null);
    const onProgress = (rows: number, of: number) => setShare({ rows, of });
    const answer = await send({ path, by: technician ?? '', format, text, update, dryRun, onProgress });
    setShare(null);
    if (answer.error !== undefined) {
      setReport(null);
      setTold(technician === null ? 'Pick your name at the top right first.' : problemOf(answer.error).title);
    } else setReport(answer.data);
  }
  const close = () => {
    setRead(null);
    setReport(null);
    setTold(null);
  };
  return { isLoading, read, setRead, report, told, setTold, share, run, close };
}

function NamedRows({ report, what }: { readonly report: ImportReport; readonly what: string }) {
  return (
    <>
      <div className={styles.reportRows}>
        <Sheet
          rows={report.named.slice(0, mostNamed)}
          rowKey={(row) => row.row}
          columns={[
            { head: 'Row', className: looks.num, cell: (row) => row.row },
            { head: what, cell: (row) => row.name },
            {
              head: 'Becomes',
              cell: (row) => <span className={verdictLook(resultMark[row.result])}>{resultText[row.result]}</span>,
            },
            {
              head: 'Why',
              cell: (row) =>
                row.errors.map((error) => `${error.path === '' ? '' : `${error.path}: `}${error.message}`).join('; '),
            },
          ]}
        />
      </div>
      {report.named.length > mostNamed && (
        <p className={looks.quiet}>The first {mostNamed} rows are named, refused ones first.</p>
      )}
    </>
  );
}

/** The act that leads on: to take what was read, or to be done. */
function MainAct({
  report,
  busy,
  onTake,
  onDone,
}: {
  readonly report: ImportReport;
  readonly busy: boolean;
  readonly onTake: () => void;
  readonly onDone: () => void;
}) {
  const takes = report.added + report.updated;
  const takesText = takes === 0 ? 'Nothing to take' : `Take ${takes} ${takes === 1 ? 'row' : 'rows'}`;
  return (
    <Button
      // Another act, not the same one with other words: it takes the focus anew.
      key={report.dryRun ? 'take' : 'done'}
      type="primary"
      className={looks.primary}
      data-primary
      ref={(element) => element?.focus()}
      disabled={report.dryRun && (takes === 0 || busy)}
      onClick={report.dryRun ? onTake : onDone}
    >
      <span>{report.dryRun ? takesText : 'Done'}</span>
      <kbd aria-hidden="true">↵</kbd>
    </Button>
  );
}

/** How far the reading is. */
function ReadingOn({ share }: { readonly share: ReturnType<typeof useRowImport>['share'] }) {
  return (
    <>
      <p role="status">Reading …{share === null ? '' : ` ${share.rows} of ${share.of} rows`}</p>
      {share !== null && (
        <Progress
          aria-label="Rows read"
          percent={Math.round((100 * share.rows) / share.of)}
          showInfo={false}
          status="normal"
          strokeLinecap="square"
        />
      )}
    </>
  );
}

/** A file that is first read to see what it would do, row by row, and then taken. */
export function RowImport({
  path,
  label,
  name,
  what,
}: {
  readonly path: ImportPath;
  readonly label: string;
  readonly name: string;
  readonly what: string;
}) {
  const { isLoading, read, setRead, report, told, setTold, share, run, close } = useRowImport(path);
  const [update, setUpdate] = useState(false);
  const isPrices = path === '/supplies/prices';
  return (
    <>
      <FileButton
        label={label}
        name={name}
        accept=".csv,.json,text/csv,application/json"
        busy={isLoading}
        onTooLarge={(line) => setTold(line)}
        onText={(text, file) => {
          const next = {
            format: file.toLowerCase().endsWith('.json') ? ('json' as const) : ('csv' as const),
            text,
            file,
          };
          setRead(next);
          setUpdate(isPrices);
          void run(next, true, false);
        }}
      />
      {read === null && told !== null && (
        <div className={looks.errorText} role="alert">
          {told}
        </div>
      )}
      {read !== null && (
        <Dialog title={read.file} onClose={close} width={720}>
          {told !== null && (
            <p className={looks.errorText} role="alert">
              {told}
            </p>
          )}
          {(isLoading || report === null) && told === null && <ReadingOn share={share} />}
          {report !== null && (
            <div data-report={report.dryRun ? 'would' : 'did'}>
              <p role="status">
                {report.dryRun ? 'Read, nothing taken yet' : 'Taken'}: {report.rows} rows, {report.added} new,{' '}
                {report.updated} changed, {report.same} as they are, {report.known}{' '}
                {isPrices ? 'not of this shop' : 'here already and left alone'}, {report.refused} refused.
              </p>
              {report.refused > 0 && <p>A refused row is left out whole; the others come in.</p>}
              <NamedRows report={report} what={what} />
              {!isPrices && report.dryRun && (
                <Checkbox
                  className={looks.tick}
                  checked={update}
                  onChange={(event) => {
                    setUpdate(event.target.checked);
                    void run(read, true, event.target.checked);
                  }}
                >
                  change what is here already
                </Checkbox>
              )}
              <MainAct report={report} busy={isLoading} onTake={() => void run(read, false, update)} onDone={close} />
            </div>
          )}
        </Dialog>
      )}
    </>
  );
}
