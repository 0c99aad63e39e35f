import { useId, useState } from 'react';
import { Button, Checkbox, Drawer, Input } from 'antd';
import type { JobNote } from '@fairwatt/core';
import { usePhotosQuery } from '../app/api.ts';
import { dayAndTime } from '../controls/clock.ts';
import { Photos } from '../pictures/photos.tsx';
import { looks } from '../looks/looks.ts';
import { useDesk } from './job-context.ts';
import { useTypedText } from '../offline/typed-texts.ts';
import styles from './notes.module.css';

/** Notes and pictures of the job, to be had from every station. */
export function Notes() {
  const { job, code } = useDesk();
  const { data: photos = [] } = usePhotosQuery(code);
  const [open, setOpen] = useState(false);
  const count = job.notes.filter(({ photoId }) => photoId === null).length + photos.length;
  return (
    <>
      <Button type="link" className={looks.noPrint} aria-haspopup="dialog" onClick={() => setOpen(true)}>
        {count === 0 ? 'Notes' : `Notes, ${count}`}
      </Button>
      {/* What was begun stays there while it is shut. */}
      <Drawer
        title={`Notes and pictures of ${code}`}
        size="min(640px, 100vw)"
        open={open}
        onClose={() => setOpen(false)}
      >
        <NotesAndPictures />
      </Drawer>
    </>
  );
}

/** What somebody saw or was told, and pictures, each to be chosen for the report. */
export function NotesAndPictures() {
  const { job, act, locked, personName, offerUndo } = useDesk();
  const [text, setText] = useTypedText(`${job.code}.note`);
  const field = useId();
  const words = job.notes.filter(({ photoId }) => photoId === null);
  const keep = () => {
    const note = { id: crypto.randomUUID(), text: text.trim(), photoId: null, inReport: false };
    if (note.text !== '' && act({ kind: 'put-note', note, basedOn: 0 }) === null) setText('');
  };
  const drop = (note: JobNote) => {
    if (act({ kind: 'drop-note', noteId: note.id, basedOn: note.version }) === null)
      offerUndo('The note is taken out.');
  };
  return (
    <>
      <form
        className={styles.entry}
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <label htmlFor={field}>A note: what was seen, or said</label>
        <Input.TextArea
          id={field}
          value={text}
          maxLength={1000}
          rows={3}
          disabled={locked}
          onChange={(event) => setText(event.target.value)}
        />
        <Button htmlType="submit" disabled={locked || text.trim() === ''}>
          Keep the note
        </Button>
      </form>
      {words.length > 0 && (
        <ul className={styles.notes} aria-label="Notes">
          {words.map((note) => (
            <li key={note.id} data-note={note.id}>
              <p>{note.text}</p>
              <div className={styles.under}>
                <span className={looks.quiet}>
                  {personName(note.by)}, {dayAndTime(note.at)}
                </span>
                <Checkbox
                  checked={note.inReport}
                  disabled={locked}
                  onChange={(event) =>
                    act({
                      kind: 'put-note',
                      note: { ...contentOf(note), inReport: event.target.checked },
                      basedOn: note.version,
                    })
                  }
                >
                  in the report
                </Checkbox>
                <Button
                  type="link"
                  disabled={locked}
                  aria-label={`Take out: ${note.text.slice(0, 60)}`}
                  onClick={() => drop(note)}
                >
                  take out
                </Button>
              </div>
            </li>
          ))}
        </ul>
      )}
      <Photos />
    </>
  );
}

const contentOf = ({ id, text, photoId, inReport }: JobNote) => ({ id, text, photoId, inReport });
