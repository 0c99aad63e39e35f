import { useEffect, useState } from 'react';
import { proxy } from 'comlink';
import { Alert, Button, Checkbox, Progress, Upload } from 'antd';
import { useErrorBoundary } from 'react-error-boundary';
import { labelReadProblemText, type Shape } from '@fairwatt/core';
import { useAddPhotoMutation } from '../../app/api.ts';
import { today } from '../../controls/clock.ts';
import { Dialog } from '../../controls/dialog.tsx';
import { useDesk } from '../../job/job-context.ts';
import { scaledPicture } from '../cables/scaled-picture.ts';
import type { LabelPicture, LabelWork, NotRead } from '../../workers/label-worker.ts';
import { useWorker } from '../../workers/use-worker.ts';
import { draftOf, openCount, supplyOf, yearsOf, type LabelDraft } from './label-draft.ts';
import { LabelFigures } from './label-figures.tsx';
import styles from './label-picture.module.css';

/** Takes the supply's figures from a picture of its label. */
export function FromLabelPicture({ fits }: { readonly fits: (shape: Shape) => void }) {
  const { locked } = useDesk();
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button disabled={locked} aria-haspopup="dialog" onClick={() => setOpen(true)}>
        From a picture of its label
      </Button>
      {open && (
        <Dialog title="What the label says" width={940} high onClose={() => setOpen(false)}>
          <LabelReader fits={fits} onDone={() => setOpen(false)} />
        </Dialog>
      )}
    </>
  );
}

const notReadText: Readonly<Record<NotRead, string>> = {
  'no-picture': 'That is no picture that this browser can open.',
  'too-large': 'That picture is too large: at most 40 MB, and 12,000 points across.',
  'no-reader': 'What reads print is not on this device yet. It is fetched once, when the server is there.',
};

const startWorker = () => new Worker(new URL('../../workers/label-worker.ts', import.meta.url), { type: 'module' });

function LabelReader(props: { readonly fits: (shape: Shape) => void; readonly onDone: () => void }) {
  // Whoever cancels gets another reader: what the first one still does is nobody's any more.
  const [round, setRound] = useState(0);
  return <OneReader key={round} {...props} onCancel={() => setRound(round + 1)} />;
}

function OneReader({
  fits,
  onDone,
  onCancel,
}: {
  readonly fits: (shape: Shape) => void;
  readonly onDone: () => void;
  readonly onCancel: () => void;
}) {
  const work = useWorker<LabelWork>(startWorker);
  // It is there by the time that the picture is.
  useEffect(() => void work.prepare(), [work]);
  const [share, setShare] = useState<number | null>(null);
  const [found, setFound] = useState<{ readonly file: File; readonly label: LabelPicture } | null>(null);
  const [told, setTold] = useState<string | null>(null);
  const { showBoundary } = useErrorBoundary();

  async function read(file: File): Promise<void> {
    setTold(null);
    setFound(null);
    setShare(0);
    const answer = await work.read(file, today(), proxy(setShare));
    setShare(null);
    if (typeof answer === 'string') setTold(notReadText[answer]);
    else setFound({ file, label: answer });
  }

  return (
    <div className={styles.reader}>
      {share === null ? (
        <Choose small={found !== null} onFile={(file) => void read(file).catch(showBoundary)} />
      ) : (
        <div className={styles.reading} role="status">
          <Progress percent={Math.round(share * 100)} aria-label="Reading the label" />
          <Button onClick={onCancel}>Cancel</Button>
        </div>
      )}
      {told !== null && <Alert type="error" title={told} showIcon />}
      {found !== null && <Found {...found} fits={fits} onDone={onDone} />}
    </div>
  );
}

/** The picture: taken, chosen, dropped or pasted. */
function Choose({ small, onFile }: { readonly small: boolean; readonly onFile: (file: File) => void }) {
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const file = [...(event.clipboardData?.files ?? [])].find(({ type }) => type.startsWith('image/'));
      if (file === undefined) return;
      event.preventDefault();
      onFile(file);
    };
    document.addEventListener('paste', paste);
    return () => document.removeEventListener('paste', paste);
  });
  return (
    <Upload.Dragger
      accept="image/*"
      showUploadList={false}
      aria-label="Picture of the label"
      beforeUpload={(file) => {
        onFile(file);
        return false;
      }}
    >
      <p>{small ? 'Another picture' : 'Take, drop or choose a picture of the label, or paste one'}</p>
      {!small && <p className="quiet">the whole label, near and level, without a lamp shining in it</p>}
    </Upload.Dragger>
  );
}

/** What was read, and the act that takes it. */
function Found({
  file,
  label,
  fits,
  onDone,
}: {
  readonly file: File;
  readonly label: LabelPicture;
  readonly fits: (shape: Shape) => void;
  readonly onDone: () => void;
}) {
  const { job, act, locked } = useDesk();
  const keepPicture = useKeepPicture();
  const { read } = label;
  const [draft, setDraft] = useState<LabelDraft>(() => draftOf(read));
  const [keep, setKeep] = useState(true);
  const open = openCount(draft);
  const nothing = draft.outputs.length === 0 && draft.rating.box === null;

  function take(): void {
    const supply = supplyOf(draft, read, job.supply, job.sheet.layout);
    if (act({ kind: 'put-supply', supply, basedOn: job.supply?.version ?? 0 }) !== null) return;
    if (read.shape !== null) fits(read.shape);
    const years = yearsOf(read, today());
    if (years !== null && years !== job.sheet.supplyYears)
      act({ kind: 'edit-sheet', changes: { supplyYears: years }, basedOn: job.sheet.version });
    if (keep) void keepPicture(file);
    onDone();
  }

  return (
    <>
      {read.problems.length > 0 && (
        <Alert
          type={nothing ? 'error' : 'warning'}
          title={
            <ul className={styles.problems}>
              {read.problems.map((problem, index) => (
                <li key={index}>{labelReadProblemText(problem)}</li>
              ))}
            </ul>
          }
        />
      )}
      {!nothing && (
        <>
          <LabelFigures label={label} draft={draft} onChange={setDraft} />
          <div className={styles.acts}>
            <Checkbox checked={keep} onChange={(event) => setKeep(event.target.checked)}>
              keep the picture with the job
            </Checkbox>
            {open > 0 && (
              <span className={styles.doubt}>{open === 1 ? 'One figure' : `${open} figures`} to look at first</span>
            )}
            <Button type="primary" data-take-label disabled={locked || open > 0} onClick={take}>
              Take what the label says
            </Button>
          </div>
        </>
      )}
    </>
  );
}

/** Keeps the picture with the job, by the road of all pictures. */
function useKeepPicture(): (file: File) => Promise<void> {
  const { code, technician } = useDesk();
  const [add] = useAddPhotoMutation();
  return async (file) => {
    if (technician === null) return;
    const picture = await scaledPicture(file);
    await add({ code, id: crypto.randomUUID(), by: technician, caption: 'Label of the supply', picture });
  };
}
