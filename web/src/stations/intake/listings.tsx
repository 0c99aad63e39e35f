import { useMemo, useState } from 'react';
import { Alert, Button, Checkbox, Grid, Input, Select, Tag, Upload } from 'antd';
import {
  driveLifeText,
  isThereAlready,
  layoutText,
  listedDoubtText,
  listingKindText,
  listingProblemText,
  partClass,
  partsListed,
  takeListed,
  voltsText,
  wattsText,
  type Act,
  type Job,
  type ListedPart,
  type ListingsRead,
} from '@fairwatt/core';
import { Dialog } from '../../controls/dialog.tsx';
import { Sheet } from '../../controls/sheet.tsx';
import { useDesk } from '../../job/job-context.ts';
import { useTypedText } from '../../offline/typed-texts.ts';
import type { Dropped, ListingWork } from '../../workers/listing-worker.ts';
import { useWorker } from '../../workers/use-worker.ts';
import { looks } from '../../looks/looks.ts';
import { newPartId } from './new-part-id.ts';
import { useTakingIn } from './use-taking-in.ts';
import styles from './listings.module.css';

const startWorker = () => new Worker(new URL('../../workers/listing-worker.ts', import.meta.url), { type: 'module' });

/** What the machine lists of itself, dropped as files or pasted. */
export default function Listings({ onDone }: { readonly onDone: () => void }) {
  const work = useWorker<ListingWork>(startWorker);
  const [dropped, setDropped] = useState<readonly Dropped[]>([]);
  const [found, setFound] = useState<ListingsRead | null>(null);
  const [failed, setFailed] = useState(false);
  const [pasted, setPasted] = useTypedText(`${useDesk().code}.listing`);

  async function add(more: readonly Dropped[]): Promise<void> {
    const all = [...dropped, ...more];
    setDropped(all);
    try {
      setFound(await work.read(all));
      setFailed(false);
    } catch (error) {
      // A file that was taken away meanwhile, or may not be opened; what stood there before stays.
      if (!(error instanceof Error && /^Not(?:Found|Readable|Allowed)Error$/.test(error.name))) throw error;
      setDropped(dropped);
      setFailed(true);
    }
  }

  return (
    <Dialog title="What the machine lists of itself" width={920} high onClose={onDone}>
      <div className={styles.from}>
        <div className={styles.ways}>
          <Upload.Dragger
            multiple
            showUploadList={false}
            aria-label="Listings as files"
            beforeUpload={(file, files) => {
              if (file === files[0]) void add(files);
              return false;
            }}
          >
            <p>Drop listings here, or press to choose them</p>
            <p className={looks.quiet}>
              the script’s file, or any of lshw, lsblk, lspci, dmidecode, smartctl, sensors, Windows CSV
            </p>
          </Upload.Dragger>
          <Input.TextArea
            aria-label="A listing, pasted"
            placeholder="… or paste one"
            value={pasted}
            rows={found === null ? 5 : 2}
            onChange={(event) => setPasted(event.target.value)}
            onPaste={(event) => {
              const text = event.clipboardData.getData('text');
              if (pasted !== '' || text.trim() === '') return;
              event.preventDefault();
              void add([{ name: 'Pasted', text }]);
            }}
          />
        </div>
        {pasted.trim() !== '' && (
          <Button
            onClick={() => {
              setPasted('');
              void add([{ name: 'Typed', text: pasted }]);
            }}
          >
            Read what is typed
          </Button>
        )}
        {failed && <Alert type="error" title="A file could not be opened. Is it still there?" showIcon />}
        {found !== null && <Found found={found} onDone={onDone} />}
      </div>
    </Dialog>
  );
}

const newId = () => crypto.randomUUID();

/** What drives tell of their lives is kept as a note, once. */
function driveLives({ machine }: ListingsRead, { notes }: Job): Act[] {
  const text = machine.drives
    .flatMap(({ item }) => driveLifeText(item) ?? [])
    .join('\n')
    .slice(0, 1000);
  if (text === '' || notes.some((note) => note.text === text)) return [];
  return [{ kind: 'put-note', note: { id: newId(), text, photoId: null, inReport: false }, basedOn: 0 }];
}

/** What was read and what was not, the parts with their classes, and the act that takes them in. */
function Found({ found, onDone }: { readonly found: ListingsRead; readonly onDone: () => void }) {
  const { job, locked } = useDesk();
  const takeActs = useTakingIn();
  const [classes, setClasses] = useState<Readonly<Record<string, string>>>({});
  const [chosen, setChosen] = useState<Readonly<Record<string, boolean>>>({});
  const { machine } = found;
  const parts = useMemo(() => partsListed(machine), [machine]);
  const tells = machine.volts.length > 0 || driveLives(found, job).length > 0;
  const classOf = (part: ListedPart) => classes[part.id] ?? part.classId;
  const isIn = (part: ListedPart) => chosen[part.id] ?? !isThereAlready(part, job);
  const wanted = parts.filter(isIn);
  const open = wanted.filter((part) => classOf(part) === null);
  const picked = wanted.flatMap((part) => {
    const classId = classOf(part);
    return classId === null ? [] : [{ part, classId }];
  });

  return (
    <>
      <div className={styles.files} aria-live="polite">
        {found.read.map(({ name, kind }, index) => (
          <Tag key={`${name}-${index}`}>
            {name} · {listingKindText[kind]}
          </Tag>
        ))}
      </div>
      {found.refused.map(({ name, problem }, index) => (
        <Alert key={`${name}-${index}`} type="error" title={`${name} ${listingProblemText[problem]}.`} showIcon />
      ))}
      {machine.portable && (
        <Alert
          type="warning"
          showIcon
          title="It says that it is a portable machine: those have no supply of this kind."
        />
      )}
      {parts.length > 0 && (
        <Parts
          parts={parts}
          isIn={isIn}
          classOf={classOf}
          onIn={(part, on) => setChosen({ ...chosen, [part.id]: on })}
          onClass={(part, classId) => setClasses({ ...classes, [part.id]: classId })}
        />
      )}
      <Besides found={found} />
      {(parts.length > 0 || tells) && (
        <div className={styles.acts}>
          {open.length > 0 && (
            <span className={styles.doubt}>
              Pick the plugs of {open.map(({ name }) => name).join(' and ')}, or leave it out
            </span>
          )}
          <Button
            type="primary"
            disabled={locked || open.length > 0 || (picked.length === 0 && !tells)}
            onClick={() => {
              takeActs([...takeListed(picked, machine, job, newPartId, newId), ...driveLives(found, job)]);
              onDone();
            }}
          >
            {picked.length === 0 && tells
              ? 'Keep what else is listed'
              : `Take in ${picked.length === 1 ? 'one part' : `${picked.length} parts`}`}
          </Button>
        </div>
      )}
    </>
  );
}

function Parts({
  parts,
  isIn,
  classOf,
  onIn,
  onClass,
}: {
  readonly parts: readonly ListedPart[];
  readonly isIn: (part: ListedPart) => boolean;
  readonly classOf: (part: ListedPart) => string | null;
  readonly onIn: (part: ListedPart, on: boolean) => void;
  readonly onClass: (part: ListedPart, classId: string) => void;
}) {
  const { job } = useDesk();
  const wide = Grid.useBreakpoint().md === true;
  const include = (part: ListedPart) => (
    <Checkbox checked={isIn(part)} onChange={(event) => onIn(part, event.target.checked)}>
      {part.quantity > 1 && `${part.quantity} × `}
      {part.name}
    </Checkbox>
  );
  const classField = (part: ListedPart) => (
    <Select
      className={styles.class ?? ''}
      aria-label={`Class of ${part.name}`}
      value={classOf(part)}
      placeholder="Which plugs has it?"
      status={isIn(part) && classOf(part) === null ? 'warning' : ''}
      showSearch={{ optionFilterProp: 'label' }}
      onChange={(classId: string | null) => {
        if (classId !== null) onClass(part, classId);
      }}
      options={part.classIds.map((id) => ({ value: id, label: partClass(id)?.name ?? id }))}
    />
  );
  const readFrom = (part: ListedPart) => (
    <span className={looks.quiet}>{part.from.map((kind) => listingKindText[kind]).join(', ')}</span>
  );
  const toLookAt = (part: ListedPart) => <ToLookAt part={part} there={isThereAlready(part, job)} />;
  return (
    <Sheet
      label="Parts that are listed"
      rows={parts}
      rowKey={(part) => part.id}
      columns={
        wide
          ? [
              { names: true, head: 'Part', cell: include },
              { head: 'Class', cell: classField },
              { head: 'Read from', cell: readFrom },
              { head: 'To look at', cell: toLookAt },
            ]
          : [
              {
                head: 'Part and class',
                cell: (part) => (
                  <div className={styles.narrow}>
                    {include(part)}
                    {classField(part)}
                    {toLookAt(part)}
                    {readFrom(part)}
                  </div>
                ),
              },
            ]
      }
    />
  );
}

function ToLookAt({ part, there }: { readonly part: ListedPart; readonly there: boolean }) {
  return (
    <>
      {part.watts !== null && <div>keeps to {wattsText(part.watts)}</div>}
      {part.doubts.map((doubt) => (
        <div key={doubt} className={styles.doubt}>
          {listedDoubtText[doubt]}
        </div>
      ))}
      {there && <div className={styles.doubt}>the job has one already</div>}
    </>
  );
}

/** What the listings tell beside the parts. */
function Besides({ found: { machine } }: { readonly found: ListingsRead }) {
  const lines = [
    machine.layout === null ? null : `Case: ${layoutText[machine.layout]}`,
    machine.supplyWatts === null ? null : `Supply, by its firmware: ${wattsText(machine.supplyWatts)}`,
    ...machine.drives.map(({ item }) => driveLifeText(item)),
    machine.volts.length === 0
      ? null
      : `The board’s own sensor, a rough word that no verdict is built on: ${machine.volts
          .map(({ rail, volts }) => `${rail} ${voltsText(volts)}`)
          .join(', ')}`,
  ].filter((line) => line !== null);
  if (lines.length === 0) return null;
  return (
    <ul className={styles.told} aria-label="What else is listed">
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ul>
  );
}
