import { useState } from 'react';
import { Button, Upload } from 'antd';
import { outbox } from '../offline/outbox.ts';
import { heldFor, refusedRequests, unsentOf } from '../offline/summary.ts';
import { readUnsentFile, unsentFile } from '../offline/unsent-file.ts';
import { looks } from '../looks/looks.ts';
import { useAccessQuery, useShopQuery } from './api.ts';
import { download } from './download.ts';
import { useAppDispatch, useAppSelector } from './store.ts';
import { signs } from '../controls/signs.tsx';

/** What is unsent as a file, and such a file back in. */
function UnsentFile() {
  const dispatch = useAppDispatch();
  const parcels = useAppSelector((state) => state.outbox.parcels);
  const [told, setTold] = useState<string | null>(null);
  async function read(file: File): Promise<void> {
    try {
      const found = readUnsentFile(await file.text());
      for (const parcel of found) dispatch(outbox.put(parcel));
      setTold(`${found.length} ${found.length === 1 ? 'change' : 'changes'} read in.`);
    } catch (error) {
      setTold(error instanceof Error ? error.message : String(error));
    }
  }
  return (
    <>
      <Button
        icon={signs.save}
        disabled={parcels.length === 0}
        onClick={() => void unsentFile(parcels).then((blob) => download(blob, 'fairwatt-unsent.json'))}
      >
        Save what is unsent
      </Button>
      <Upload
        accept="application/json,.json"
        aria-label="File of unsent changes"
        showUploadList={false}
        beforeUpload={(file) => {
          void read(file);
          return false;
        }}
      >
        <Button icon={signs.file}>Read such a file</Button>
      </Upload>
      {told !== null && <span role="status">{told}</span>}
    </>
  );
}

/** What somebody else typed here and could not be sent before the person changed. */
function HeldNotice() {
  const person = useAccessQuery().data?.person?.id ?? null;
  const people = useShopQuery().data?.technicians ?? [];
  const held = useAppSelector((state) => heldFor(state, person ?? ''));
  if (person === null) return null;
  return held.map(({ by, count }) => {
    const name = people.find(({ id }) => id === by)?.name ?? by;
    return (
      <div key={by} className={looks.notice} role="status" data-held={by}>
        <span className={looks.mark}>Waits for {name}</span>
        <span>
          {count} {count === 1 ? 'change is' : 'changes are'} kept in this browser and sent when {name} signs in here.
        </span>
      </div>
    );
  });
}

/** What concerns everything that is unsent: a server that is away, a browser that keeps nothing, what was refused. */
export function UnsentNotice() {
  const dispatch = useAppDispatch();
  const connection = useAppSelector((state) => state.connection);
  const away = connection !== 'here';
  const memory = useAppSelector((state) => state.outbox.storage === 'memory');
  const { waiting } = useAppSelector((state) => unsentOf(state, null));
  const refused = useAppSelector(refusedRequests);
  return (
    <>
      {away && (
        <div className={`${looks.notice} ${looks.bad}`} role="alert">
          <span className={looks.mark}>{connection === 'full' ? 'No room' : 'Server away'}</span>
          <span>
            {connection === 'full' && 'The disk of the server is full: make room there. '}
            {waiting > 0
              ? `${waiting} ${waiting === 1 ? 'change is' : 'changes are'} kept in this browser and sent ` +
                'when it is back.'
              : 'What you type is kept in this browser and sent when it is back.'}
          </span>
        </div>
      )}
      <HeldNotice />
      {memory && (
        <div className={looks.notice} role="alert" data-storage="memory">
          <span className={looks.mark}>Keeps nothing</span>
          <span className={looks.fills}>
            This browser keeps nothing: what the server has not confirmed is lost by a reload.
          </span>
          <UnsentFile />
        </div>
      )}
      {refused.map((parcel) => (
        <div key={parcel.id} className={`${looks.notice} ${looks.bad}`} role="alert" data-refused>
          <span className={looks.mark}>Not saved</span>
          <span className={looks.fills}>
            {parcel.kind === 'request' ? parcel.title : ''}
            {parcel.code === null ? '' : `, ${parcel.code}`}: {parcel.refused?.title}
          </span>
          <Button icon={signs.again} onClick={() => dispatch(outbox.insist({ id: parcel.id, newId: parcel.id }))}>
            Try again
          </Button>
          <Button icon={signs.remove} onClick={() => dispatch(outbox.discard(parcel.id))}>
            Discard
          </Button>
        </div>
      ))}
    </>
  );
}
