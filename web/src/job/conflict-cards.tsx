import { useState } from 'react';
import { Button, Radio } from 'antd';
import { standingOutcome, type Act } from '@fairwatt/core';
import { useAppDispatch } from '../app/store.ts';
import { dayAndTime } from '../controls/clock.ts';
import { outbox } from '../offline/outbox.ts';
import type { ActParcel, Refused } from '../offline/parcel.ts';
import { differences, type FieldOfTwo } from '../controls/differences.ts';
import { fieldLabel, valueText } from '../controls/field-words.ts';
import { looks } from '../looks/looks.ts';
import { contentOf, standingContent, withTheirs } from './conflict-fields.ts';
import { subjectLabel } from './conflict-words.ts';
import { useDesk } from './job-context.ts';
import { Sheet } from '../controls/sheet.tsx';
import { signs } from '../controls/signs.tsx';
import styles from './conflicts.module.css';

type Conflict = Extract<Refused, { kind: 'conflict' }>;

/** The act as it is sent when somebody insists: it replaces what he sees now. */
function insisting(act: Act, conflict: Conflict): Act {
  return act.kind === 'note-outcome' ? { ...act, instead: standingOutcome(conflict.theirs, act.checkId) } : act;
}

/** One field in one of the states, to be picked when it shall stand. */
function PickSide({
  field,
  own,
  picked,
  onPick,
}: {
  readonly field: FieldOfTwo;
  readonly own: boolean;
  readonly picked: boolean;
  readonly onPick: () => void;
}) {
  return (
    <Radio
      className={styles.pick ?? ''}
      checked={picked}
      aria-label={`${fieldLabel(field.path)}: ${own ? 'mine' : 'theirs'}`}
      onChange={onPick}
    >
      {own ? 'Yours' : 'Theirs'}: “{valueText(own ? field.mine : field.theirs)}”
    </Radio>
  );
}

/** Something that two people changed: both states side by side, who made the other one and when, and the choice. */
function ConflictCard({ parcel, conflict }: { readonly parcel: ActParcel; readonly conflict: Conflict }) {
  const { job, personName } = useDesk();
  const dispatch = useAppDispatch();
  const [theirs, setTheirs] = useState<readonly string[]>([]);
  const standing = standingContent(parcel.act, conflict.theirs);
  const fields = differences(contentOf(parcel.act), standing);
  const about = subjectLabel(parcel.act, job, conflict.theirs);
  const insist = (act: Act) =>
    dispatch(
      outbox.insist({
        id: parcel.id,
        newId: crypto.randomUUID(),
        act: insisting(act, conflict),
        // What stands now was seen here, side by side.
        basedOn: parcel.act.kind === 'edit-sheet' ? conflict.theirs.sheet.version : conflict.current,
      }),
    );
  const { changed } = conflict;
  const who = changed === null ? 'Somebody' : `${personName(changed.by)}, ${dayAndTime(changed.at)},`;
  const all = theirs.length === fields.length && fields.length > 0;
  return (
    <div className={`${looks.notice} ${looks.bad} ${looks.conflict}`} role="alert" data-conflict>
      <span className={looks.mark}>Not saved</span>
      <div className={looks.fills}>
        <strong>{about}</strong> was changed meanwhile: {who}{' '}
        {standing === null ? 'took it away.' : 'has it otherwise.'}
        {standing !== null && fields.length > 0 && (
          <Sheet
            rows={fields}
            rowKey={(field) => field.path}
            columns={[
              { names: true, cell: (field) => fieldLabel(field.path) },
              {
                cell: (field) => (
                  <PickSide
                    field={field}
                    own={false}
                    picked={theirs.includes(field.path)}
                    onPick={() => setTheirs([...theirs, field.path])}
                  />
                ),
              },
              {
                cell: (field) => (
                  <PickSide
                    field={field}
                    own
                    picked={!theirs.includes(field.path)}
                    onPick={() => setTheirs(theirs.filter((path) => path !== field.path))}
                  />
                ),
              },
            ]}
          />
        )}
      </div>
      <div className={looks.rowActions}>
        {theirs.length > 0 && !all && (
          <Button onClick={() => insist(withTheirs(parcel.act, conflict.theirs, theirs))}>Keep as picked</Button>
        )}
        <Button onClick={() => insist(parcel.act)}>Use mine</Button>
        <Button onClick={() => dispatch(outbox.discard(parcel.id))}>Keep theirs</Button>
      </div>
    </div>
  );
}

/** Something that the server would not take for another reason. */
function RefusedCard({ parcel }: { readonly parcel: ActParcel }) {
  const dispatch = useAppDispatch();
  const { job } = useDesk();
  return (
    <div className={`${looks.notice} ${looks.bad}`} role="alert" data-conflict>
      <span className={looks.mark}>Not saved</span>
      <span className={looks.fills}>
        <strong>{subjectLabel(parcel.act, job, job)}</strong>: {parcel.refused?.title}
      </span>
      <Button icon={signs.again} onClick={() => dispatch(outbox.insist({ id: parcel.id, newId: crypto.randomUUID() }))}>
        Try again
      </Button>
      <Button icon={signs.remove} onClick={() => dispatch(outbox.discard(parcel.id))}>
        Discard
      </Button>
    </div>
  );
}

/** A card for each change that the server would not take. */
export default function ConflictCards({ parcels }: { readonly parcels: readonly ActParcel[] }) {
  return parcels.map((parcel) =>
    parcel.refused?.kind === 'conflict' ? (
      <ConflictCard key={parcel.id} parcel={parcel} conflict={parcel.refused} />
    ) : (
      <RefusedCard key={parcel.id} parcel={parcel} />
    ),
  );
}
