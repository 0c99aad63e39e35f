import { useState } from 'react';
import { Button, Checkbox, Input, Select } from 'antd';
import type { Job } from '@fairwatt/core';
import { mostPhotos, type Photo } from '@fairwatt/contract';
import { usePhotosQuery, useRemovePhotoMutation } from '../app/api.ts';
import { RemoveButton } from '../controls/remove-button.tsx';
import { useDesk } from '../job/job-context.ts';
import { useTypedText } from '../offline/typed-texts.ts';
import { looks } from '../looks/looks.ts';
import { PictureButton } from './picture-button.tsx';
import { useTakePicture } from './use-take-picture.ts';
import styles from './photos.module.css';

/** What a picture can show, beside all of it. */
const thingsOf = ({ cables, leads }: Job) => [
  ...cables.map(({ id, label }) => ({ value: id, label: `cable ${label}`, shows: { cableId: id } })),
  ...leads.map(({ id, what }) => ({ value: id, label: what, shows: { leadId: id } })),
];

/** Whether a picture is in the report, and taking it out; what was noted of it goes with it. */
function usePhotoActs() {
  const { code, job, act, actForGood, technician } = useDesk();
  const [remove] = useRemovePhotoMutation();
  const noteOf = (photoId: string) => job.notes.find((item) => item.photoId === photoId);
  function choose(photoId: string, inReport: boolean): void {
    const { id = crypto.randomUUID(), text = '', version = 0 } = noteOf(photoId) ?? {};
    act({ kind: 'put-note', note: { id, text, photoId, inReport }, basedOn: version });
  }
  function takeOut(id: string): void {
    const note = noteOf(id);
    if (note !== undefined) actForGood({ kind: 'drop-note', noteId: note.id, basedOn: note.version });
    void remove({ code, id, by: technician ?? '' });
  }
  return { isChosen: (photoId: string) => noteOf(photoId)?.inReport === true, choose, takeOut };
}

function PhotoItem({
  photo,
  isLarge,
  onLarge,
}: {
  readonly photo: Photo;
  readonly isLarge: boolean;
  readonly onLarge: () => void;
}) {
  const { code, job, locked, personName } = useDesk();
  const { isChosen, choose, takeOut } = usePhotoActs();
  const shown = thingsOf(job).find(({ value }) => value === (photo.cableId ?? photo.leadId));
  const words = photo.caption === '' ? 'picture' : photo.caption;
  return (
    <li>
      <Button
        type="text"
        className={looks.plain}
        aria-expanded={isLarge}
        aria-label={`${isLarge ? 'Smaller' : 'Larger'}: ${words}`}
        onClick={onLarge}
      >
        <img
          src={`/api/jobs/${encodeURIComponent(code)}/photos/${photo.id}`}
          alt={photo.caption === '' ? 'Harness' : photo.caption}
          loading="lazy"
          width={photo.widthPixels}
          height={photo.heightPixels}
          className={isLarge ? styles.large : undefined}
        />
      </Button>
      <div className={looks.quiet}>
        {[photo.caption, shown?.label ?? '', personName(photo.by)].filter((text) => text !== '').join(' · ')}{' '}
        <Checkbox
          checked={isChosen(photo.id)}
          disabled={locked}
          aria-label={`In the report: ${words}`}
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
  );
}

/** Takes pictures under the words and for the thing that are set beside it. */
function TakePictures({ isFull }: { readonly isFull: boolean }) {
  const { job, locked } = useDesk();
  const taking = useTakePicture();
  const [told, setTold] = useState<string | null>(null);
  const [caption, setCaption] = useTypedText(`${job.code}.caption`);
  const [shows, setShows] = useState('');
  const things = thingsOf(job);
  const chosen = things.find(({ value }) => value === shows);
  async function take(file: File): Promise<boolean> {
    const taken = await taking.take(file, caption, chosen?.shows);
    if (taken.told !== null) setTold(taken.told);
    return taken.kept;
  }
  /** Several at once go in one after the other, under the same words; one that cannot be kept does not stop the next. */
  async function takeAll(files: readonly File[]): Promise<void> {
    setTold(null);
    const kept: boolean[] = [];
    for (const file of files) kept.push(await take(file));
    if (kept.every(Boolean)) setCaption('');
  }
  const button = { busy: taking.busy, disabled: locked || taking.busy || isFull, onTaken: takeAll };
  return (
    <>
      <div className={`${looks.rowActions} ${looks.onFoot}`}>
        <label className={`${looks.field} ${styles.caption}`}>
          <span className={looks.name}>What it shows</span>
          <Input
            value={caption}
            maxLength={120}
            disabled={locked}
            onChange={(event) => setCaption(event.target.value)}
          />
        </label>
        <label className={`${looks.field} ${styles.step}`}>
          <span className={looks.name}>Cable or lead</span>
          <Select
            aria-label="Cable or lead"
            value={shows}
            disabled={locked}
            popupMatchSelectWidth={false}
            onChange={(picked) => setShows(picked)}
            options={[{ value: '', label: 'all of it' }, ...things.map(({ value, label }) => ({ value, label }))]}
          />
        </label>
        <PictureButton label="Take a picture" camera {...button} />
        <PictureButton label="Choose pictures" {...button} />
      </div>
      {told !== null && (
        <p className={looks.errorText} role="alert">
          {told}
        </p>
      )}
    </>
  );
}

/** The job's pictures: of the harness, a lead, a label, damage; scaled down here before they are sent. */
export function Photos() {
  const { data: photos = [], isError } = usePhotosQuery(useDesk().code);
  const [large, setLarge] = useState<string | null>(null);
  return (
    <section className={`${looks.block} ${looks.wellBelow}`} aria-label="Pictures">
      <span className={looks.label}>
        Pictures, {photos.length} of {mostPhotos}
      </span>
      <TakePictures isFull={photos.length >= mostPhotos} />
      {isError && <p className={looks.quiet}>The pictures cannot be fetched now.</p>}
      {photos.length > 0 && (
        <ul className={styles.photos}>
          {photos.map((photo) => (
            <PhotoItem
              key={photo.id}
              photo={photo}
              isLarge={large === photo.id}
              onLarge={() => setLarge(large === photo.id ? null : photo.id)}
            />
          ))}
        </ul>
      )}
    </section>
  );
}
