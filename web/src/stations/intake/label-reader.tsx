import { useEffect, useState } from 'react';
import { proxy } from 'comlink';
import { Alert, Button, Checkbox, Progress, Upload } from 'antd';
import { useErrorBoundary } from 'react-error-boundary';
import { labelReadProblemText, type Shape } from '@fairwatt/core';
import { today } from '../../controls/clock.ts';
import { Dialog } from '../../controls/dialog.tsx';
import { useDesk } from '../../job/job-context.ts';
import { useTakePicture } from '../../pictures/use-take-picture.ts';
import type { LabelPicture, LabelWork } from '../../workers/label-worker.ts';
import { useWorker } from '../../workers/use-worker.ts';
import { looks } from '../../looks/looks.ts';
import { draftOf, openCount, supplyOf, yearsOf, type LabelDraft } from './label-draft.ts';
import { LabelBesides } from './label-besides.tsx';
import { LabelFigures } from './label-figures.tsx';
import styles from './label-reader.module.css';

const startWorker = () => new Worker(new URL('../../workers/label-worker.ts', import.meta.url), { type: 'module' });

interface Props {
  readonly fits: (shape: Shape) => void;
  readonly onDone: () => void;
}

/** What the label says, read from a picture. */
export default function LabelReader(props: Props) {
  // Whoever cancels gets another reader: what the first one still does is nobody's any more.
  const [round, setRound] = useState(0);
  return (
    <Dialog title="What the label says" width={940} high onClose={props.onDone}>
      <OneReader key={round} {...props} onCancel={() => setRound(round + 1)} />
    </Dialog>
  );
}

function OneReader({ fits, onDone, onCancel }: Props & { readonly onCancel: () => void }) {
  const { showBoundary } = useErrorBoundary();
  const work = useWorker<LabelWork>(startWorker);
  // It is there by the time that the picture is.
  useEffect(() => {
    work.prepare().catch(showBoundary);
  }, [work, showBoundary]);
  const [share, setShare] = useState<number | null>(null);
  const [found, setFound] = useState<{ readonly file: File; readonly label: LabelPicture } | null>(null);
  const [told, setTold] = useState<string | null>(null);

  async function read(file: File): Promise<void> {
    setTold(null);
    setFound(null);
    setShare(0);
    const answer = await work.read(file, today(), proxy(setShare));
    setShare(null);
    if ('refused' in answer) setTold(answer.refused);
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
      {!small && <p className={looks.quiet}>the whole label, near and level, without a lamp shining in it</p>}
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
  const pictures = useTakePicture();
  const [lost, setLost] = useState<string | null>(null);
  const { read } = label;
  const [draft, setDraft] = useState<LabelDraft>(() => draftOf(read));
  const [keep, setKeep] = useState(true);
  const open = openCount(draft);
  const nothing = draft.outputs.length === 0 && draft.rating.box === null;

  async function take(): Promise<void> {
    const supply = supplyOf(draft, read, job.supply, job.sheet.layout);
    if (act({ kind: 'put-supply', supply, basedOn: job.supply?.version ?? 0 }) !== null) return;
    if (draft.besides.includes('shape') && read.shape !== null) fits(read.shape);
    const years = draft.besides.includes('date') ? yearsOf(read, today()) : null;
    if (years !== null && years !== job.sheet.supplyYears)
      act({ kind: 'edit-sheet', changes: { supplyYears: years }, basedOn: job.sheet.version });
    const picture = keep ? await pictures.take(file, 'Label of the supply') : null;
    if (picture === null || picture.kept) onDone();
    else setLost(picture.told);
  }

  if (lost !== null) return <Alert type="error" showIcon title={`What the label says is taken. ${lost}`} />;
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
          <LabelBesides read={read} taken={draft.besides} onTaken={(besides) => setDraft({ ...draft, besides })} />
          <div className={styles.acts}>
            <Checkbox checked={keep} onChange={(event) => setKeep(event.target.checked)}>
              keep the picture with the job
            </Checkbox>
            {open > 0 && (
              <span className={styles.doubt}>{open === 1 ? 'One figure' : `${open} figures`} to look at first</span>
            )}
            <Button
              type="primary"
              data-take-label
              disabled={locked || open > 0 || pictures.busy}
              onClick={() => void take()}
            >
              Take what the label says
            </Button>
          </div>
        </>
      )}
    </>
  );
}
