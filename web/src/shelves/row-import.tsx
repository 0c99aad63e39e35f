import { useState } from 'react';
import { Button, Checkbox } from 'antd';
import type { ImportReport } from '@fairwatt/contract';
import { problemOf, useImportFileMutation } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { FileButton } from '../controls/file-button.tsx';
import { Sheet } from '../controls/sheet.tsx';
import { Dialog } from '../controls/dialog.tsx';

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

/** A file that is first read to see what it would do, row by row, and then taken. */
export function RowImport({
  path,
  label,
  name,
  what,
}: {
  readonly path: '/supplies/import' | '/supplies/parts/import' | '/supplies/prices';
  readonly label: string;
  readonly name: string;
  readonly what: string;
}) {
  const technician = useAppSelector((state) => state.session.technician);
  const [send, state] = useImportFileMutation();
  const [read, setRead] = useState<{
    readonly format: 'csv' | 'json';
    readonly text: string;
    readonly file: string;
  } | null>(null);
  const [report, setReport] = useState<ImportReport | null>(null);
  const [update, setUpdate] = useState(false);
  const [told, setTold] = useState<string | null>(null);
  const knownText = path === '/supplies/prices' ? 'not of this shop' : 'here already and left alone';
  const [share, setShare] = useState<{ readonly rows: number; readonly of: number } | null>(null);
  async function run(file: NonNullable<typeof read>, dryRun: boolean, overwrite: boolean): Promise<void> {
    setTold(null);
    const answer = await send({
      path,
      by: technician ?? '',
      format: file.format,
      text: file.text,
      update: overwrite,
      dryRun,
      onProgress: (rows, of) => setShare({ rows, of }),
    });
    setShare(null);
    if (answer.error !== undefined) {
      setReport(null);
      setTold(technician === null ? 'Pick your name at the top right first.' : problemOf(answer.error).title);
    } else setReport(answer.data);
  }
  const takes = report === null ? 0 : report.added + report.updated;
  const close = () => {
    setRead(null);
    setReport(null);
    setTold(null);
  };
  return (
    <>
      <FileButton
        label={label}
        name={name}
        accept=".csv,.json,text/csv,application/json"
        busy={state.isLoading}
        onTooLarge={(line) => setTold(line)}
        onText={(text, file) => {
          const next = {
            format: file.toLowerCase().endsWith('.json') ? ('json' as const) : ('csv' as const),
            text,
            file,
          };
          setRead(next);
          setUpdate(path === '/supplies/prices');
          void run(next, true, false);
        }}
      />
      {read === null && told !== null && (
        <div className="error-text" role="alert">
          {told}
        </div>
      )}
      {read !== null && (
        <Dialog title={read.file} onClose={close} width={720}>
          {told !== null && (
            <p className="error-text" role="alert">
              {told}
            </p>
          )}
          {(state.isLoading || report === null) && told === null && (
            <p role="status">
              Reading …{share === null ? '' : ` ${share.rows} of ${share.of} rows`}{' '}
              {share !== null && <progress value={share.rows} max={share.of} aria-label="Rows read" />}
            </p>
          )}
          {report !== null && (
            <div data-report={report.dryRun ? 'would' : 'did'}>
              <p role="status">
                {report.dryRun ? 'Read, nothing taken yet' : 'Taken'}: {report.rows} rows, {report.added} new,{' '}
                {report.updated} changed, {report.same} as they are, {report.known} {knownText}, {report.refused}{' '}
                refused.
              </p>
              {report.refused > 0 && <p>A refused row is left out whole; the others come in.</p>}
              <div className="report-rows">
                <Sheet
                  rows={report.named.slice(0, 100)}
                  rowKey={(row) => row.row}
                  columns={[
                    { head: 'Row', className: 'num', cell: (row) => row.row },
                    { head: what, cell: (row) => row.name },
                    {
                      head: 'Becomes',
                      cell: (row) => (
                        <span className={`verdict ${resultMark[row.result]}`}>{resultText[row.result]}</span>
                      ),
                    },
                    {
                      head: 'Why',
                      cell: (row) =>
                        row.errors
                          .map((error) => `${error.path === '' ? '' : `${error.path}: `}${error.message}`)
                          .join('; '),
                    },
                  ]}
                />
              </div>
              {report.named.length > 100 && <p className="quiet">The first 100 rows are named, refused ones first.</p>}
              {path !== '/supplies/prices' && report.dryRun && (
                <Checkbox
                  className="tick"
                  checked={update}
                  onChange={(event) => {
                    setUpdate(event.target.checked);
                    void run(read, true, event.target.checked);
                  }}
                >
                  change what is here already
                </Checkbox>
              )}
              {report.dryRun ? (
                <Button
                  type="primary"
                  className="primary"
                  data-primary
                  ref={(element) => element?.focus()}
                  disabled={takes === 0 || state.isLoading}
                  onClick={() => void run(read, false, update)}
                >
                  <span>{takes === 0 ? 'Nothing to take' : `Take ${takes} ${takes === 1 ? 'row' : 'rows'}`}</span>
                  <kbd aria-hidden="true">↵</kbd>
                </Button>
              ) : (
                <Button
                  type="primary"
                  className="primary"
                  data-primary
                  ref={(element) => element?.focus()}
                  onClick={close}
                >
                  <span>Done</span>
                  <kbd aria-hidden="true">↵</kbd>
                </Button>
              )}
            </div>
          )}
        </Dialog>
      )}
    </>
  );
}
