import { useRef, useState } from 'react';
import { mostPhotos } from '@fairwatt/contract';
import { problemOf, useAddPhotoMutation, usePhotosQuery, useRemovePhotoMutation } from '../../app/api.ts';
import { useDesk } from '../../job/job-context.ts';
import { NoPicture, scaledPicture } from './scaled-picture.ts';

/** Pictures of the harness as it was, taken with a phone or tablet, scaled down here before they are sent. */
export function Photos() {
  const { code, job, locked, technician, personName } = useDesk();
  const { data: photos = [], isError } = usePhotosQuery(code);
  const [add, adding] = useAddPhotoMutation();
  const [remove] = useRemovePhotoMutation();
  const [told, setTold] = useState<string | null>(null);
  const [caption, setCaption] = useState('');
  const [cableId, setCableId] = useState('');
  const [large, setLarge] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const address = (id: string) => `/api/jobs/${encodeURIComponent(code)}/photos/${id}`;
  async function take(file: File | undefined): Promise<void> {
    if (file === undefined || technician === null) return;
    setTold(null);
    try {
      const picture = await scaledPicture(file);
      const answer = await add({
        code,
        id: crypto.randomUUID(),
        by: technician,
        caption: caption.trim(),
        ...(cableId === '' ? {} : { cableId }),
        picture,
      });
      if (answer.error !== undefined)
        setTold(`${problemOf(answer.error).title}. The picture is not kept; take it again later.`);
      else setCaption('');
      if (answer.data === null) setTold('The server is away: the picture is kept here, and sent when it is back.');
    } catch (error) {
      if (!(error instanceof NoPicture)) throw error;
      setTold(error.message);
    }
  }
  const cableName = (id: string | null) => job.cables.find((cable) => cable.id === id)?.label;
  return (
    <section className="block" aria-label="Pictures" style={{ marginTop: 18 }}>
      <span className="label">
        Pictures, {photos.length} of {mostPhotos}
      </span>
      <div className="row-actions" style={{ alignItems: 'end' }}>
        <label className="field" style={{ width: 220 }}>
          <span className="name">What it shows</span>
          <input
            value={caption}
            maxLength={120}
            disabled={locked}
            onChange={(event) => setCaption(event.target.value)}
          />
        </label>
        <label className="field" style={{ width: 120 }}>
          <span className="name">Cable</span>
          <select value={cableId} disabled={locked} onChange={(event) => setCableId(event.target.value)}>
            <option value="">all of it</option>
            {job.cables.map((cable) => (
              <option key={cable.id} value={cable.id}>
                {cable.label}
              </option>
            ))}
          </select>
        </label>
        <button
          type="button"
          className="secondary"
          disabled={locked || adding.isLoading || photos.length >= mostPhotos}
          onClick={() => input.current?.click()}
        >
          {adding.isLoading ? 'Keeping …' : 'Take or choose a picture'}
        </button>
        <input
          ref={input}
          type="file"
          accept="image/*"
          capture="environment"
          className="hidden-file"
          tabIndex={-1}
          aria-label="Picture of the harness"
          onChange={(event) => {
            void take(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
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
              <button
                type="button"
                className="plain"
                aria-expanded={large === photo.id}
                aria-label={`${large === photo.id ? 'Smaller' : 'Larger'}: ${photo.caption === '' ? 'picture' : photo.caption}`}
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
              </button>
              <div className="quiet">
                {photo.caption}
                {photo.cableId !== null && cableName(photo.cableId) !== undefined
                  ? ` · cable ${cableName(photo.cableId)}`
                  : ''}{' '}
                · {personName(photo.by)}{' '}
                <button
                  type="button"
                  className="link"
                  disabled={locked}
                  aria-label={`Take out picture ${photo.caption}`}
                  onClick={() => void remove({ code, id: photo.id, by: technician ?? '' })}
                >
                  take out
                </button>
              </div>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
