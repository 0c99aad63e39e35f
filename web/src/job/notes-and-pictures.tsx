import { useId } from 'react';
import { Button, Checkbox, Input } from 'antd';
import type { JobNote } from '@fairwatt/core';
import { dayAndTime } from '../controls/clock.ts';
import { Photos } from '../pictures/photos.tsx';
import { looks } from '../looks/looks.ts';
import { useDesk } from './job-context.ts';
import { useTypedText } from '../offline/typed-texts.ts';
import { signs } from '../controls/signs.tsx';
import styles from './notes-and-pictures.module.css';

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
                  icon={signs.remove}
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
