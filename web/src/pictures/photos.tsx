import { useState } from 'react';
import { Button, Checkbox, Input, Select } from 'antd';
import { mostPhotos } from '@fairwatt/contract';
import { usePhotosQuery, useRemovePhotoMutation } from '../app/api.ts';
import { useDesk } from '../job/job-context.ts';
import { PictureButton } from './picture-button.tsx';
import { useTakePicture } from './use-take-picture.ts';
import { RemoveButton } from '../controls/remove-button.tsx';

/** The job's pictures: of the harness, a lead, a label, damage; scaled down here before they are sent. */
export function Photos() {
  const { code, job, act, actForGood, locked, technician, personName } = useDesk();
  const { data: photos = [], isError } = usePhotosQuery(code);
  const taking = useTakePicture();
  const [remove] = useRemovePhotoMutation();
  const [told, setTold] = useState<string | null>(null);
  const [caption, setCaption] = useState('');
  const [shows, setShows] = useState('');
  const [large, setLarge] = useState<string | null>(null);
  const address = (id: string) => `/api/jobs/${encodeURIComponent(code)}/photos/${id}`;
  /**
   * Several at once go in one after the other, under the same words; one that cannot be kept does not stop the next.
   */
  async function takeAll(files: readonly File[]): Promise<void> {
    setTold(null);
    const kept: boolean[] = [];
    for (const file of files) kept.push(await take(file));
    if (kept.every(Boolean)) setCaption('');
  }
  async function take(file: File): Promise<boolean> {
    const taken = await taking.take(file, caption, chosen?.shows);
    if (taken.told !== null) setTold(taken.told);
    return taken.kept;
  }
  const noteOf = (photoId: string) => job.notes.find((item) => item.photoId === photoId);
  function choose(photoId: string, inReport: boolean): void {
    const note = noteOf(photoId);
    const { id = crypto.randomUUID(), text = '', version = 0 } = note ?? {};
    act({ kind: 'put-note', note: { id, text, photoId, inReport }, basedOn: version });
  }
  function takeOut(id: string): void {
    const note = noteOf(id);
    if (note !== undefined) actForGood({ kind: 'drop-note', noteId: note.id, basedOn: note.version });
    void remove({ code, id, by: technician ?? '' });
  }
  const full = locked || taking.busy || photos.length >= mostPhotos;
  // What a picture can show, beside all of it.
  const things = [
    ...job.cables.map(({ id, label }) => ({ value: id, label: `cable ${label}`, shows: { cableId: id } })),
    ...job.leads.map(({ id, what }) => ({ value: id, label: what, shows: { leadId: id } })),
  ];
  const thing = (id: string | null) => things.find(({ value }) => value === id);
  const chosen = thing(shows);
  return (
    <section className="block" aria-label="Pictures" style={{ marginTop: 18 }}>
      <span className="label">
        Pictures, {photos.length} of {mostPhotos}
      </span>
      <div className="row-actions" style={{ alignItems: 'end' }}>
        <label className="field" style={{ width: 220 }}>
          <span className="name">What it shows</span>
          <Input
            value={caption}
            maxLength={120}
            disabled={locked}
            onChange={(event) => setCaption(event.target.value)}
          />
        </label>
        <label className="field" style={{ width: 150 }}>
          <span className="name">Cable or lead</span>
          <Select
            aria-label="Cable or lead"
            value={shows}
            disabled={locked}
            popupMatchSelectWidth={false}
            onChange={(picked) => setShows(picked)}
            options={[{ value: '', label: 'all of it' }, ...things.map(({ value, label }) => ({ value, label }))]}
          />
        </label>
        <PictureButton label="Take a picture" camera busy={taking.busy} disabled={full} onTaken={takeAll} />
        <PictureButton label="Choose pictures" busy={taking.busy} disabled={full} onTaken={takeAll} />
      </div>
      {told !== null && (
        <p className="error-text" role="alert">
          {told}
        </p>
      )}
      {isError && <p className="quiet">The pictures cannot be fetched now.</p>}
      {photos.length > 0 && (
        <ul className="photos">
          {photos.map((photo) => (
            <li key={photo.id}>
              <Button
                type="text"
                className="plain"
                aria-expanded={large === photo.id}
                aria-label={
                  `${large === photo.id ? 'Smaller' : 'Larger'}: ` + (photo.caption === '' ? 'picture' : photo.caption)
                }
                onClick={() => setLarge(large === photo.id ? null : photo.id)}
              >
                <img
                  src={address(photo.id)}
                  alt={photo.caption === '' ? 'Harness' : photo.caption}
                  loading="lazy"
                  width={photo.widthPixels}
                  height={photo.heightPixels}
                  className={large === photo.id ? 'large' : undefined}
                />
              </Button>
              <div className="quiet">
                {[photo.caption, thing(photo.cableId ?? photo.leadId)?.label ?? '', personName(photo.by)]
                  .filter((text) => text !== '')
                  .join(' · ')}{' '}
                <Checkbox
                  checked={noteOf(photo.id)?.inReport === true}
                  disabled={locked}
                  aria-label={`In the report: ${photo.caption === '' ? 'picture' : photo.caption}`}
                  onChange={(event) => choose(photo.id, event.target.checked)}
                >
                  in the report
                </Checkbox>
                <RemoveButton
                  what={`picture ${photo.caption}`}
                  text="take out"
                  disabled={locked}
                  onRemove={() => takeOut(photo.id)}
                />
              </div>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
