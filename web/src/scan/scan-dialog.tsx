import { useCallback, useRef, useState } from 'react';
import { Alert, Button } from 'antd';
import { transfer } from 'comlink';
import { useNavigate } from 'react-router';
import { Dialog } from '../controls/dialog.tsx';
import { NoPicture, openPicture } from '../pictures/open-picture.ts';
import { PictureButton } from '../pictures/picture-button.tsx';
import type { ScanWork } from '../workers/scan-worker.ts';
import { useWorker } from '../workers/use-worker.ts';
import { looks } from '../looks/looks.ts';
import type { Scanned } from './scanned.ts';
import styles from './scan.module.css';
import { useCamera } from './use-camera.ts';
import { useScanned } from './use-scanned.ts';

const startWorker = () => new Worker(new URL('../workers/scan-worker.ts', import.meta.url), { type: 'module' });

/** What is told of codes that lead nowhere here. */
const foreign = (texts: readonly string[]) =>
  `Read, but of nothing in this shop: ${texts.map((text) => text.slice(0, 80)).join(', ')}`;

/** Reads a tag, a sticker or a bag's label with the camera or from a picture, and goes where it leads. */
export default function ScanDialog({ onClose }: { readonly onClose: () => void }) {
  return (
    <Dialog title="Scan a code" onClose={onClose} width={520}>
      <Scanner onClose={onClose} />
    </Dialog>
  );
}

function Scanner({ onClose }: { readonly onClose: () => void }) {
  const navigate = useNavigate();
  const work = useWorker<ScanWork>(startWorker);
  const screen = useRef<HTMLVideoElement>(null);
  const leadsTo = useScanned();
  const [told, setTold] = useState<string | null>(null);
  const [several, setSeveral] = useState<readonly Scanned[]>([]);

  const go = useCallback(
    ({ path }: Scanned) => {
      onClose();
      void navigate(path);
    },
    [navigate, onClose],
  );
  /** Goes where the only code leads; of several somebody picks. */
  const take = useCallback(
    async (texts: readonly string[]) => {
      const found = (await Promise.all(texts.map(leadsTo))).filter((one) => one !== null);
      const [first] = found;
      setTold(first === undefined ? foreign(texts) : null);
      if (first !== undefined && found.length === 1) go(first);
      else setSeveral(found);
    },
    [leadsTo, go],
  );
  const look = useCallback(
    async (picture: ImageBitmap) => {
      const texts = await work.read(transfer(picture, [picture]));
      if (texts.length > 0) await take(texts);
    },
    [work, take],
  );
  const camera = useCamera(screen, look);

  async function readFirst([file]: readonly File[]): Promise<void> {
    if (file === undefined) return;
    setTold(null);
    setSeveral([]);
    try {
      const picture = await openPicture(file);
      const texts = await work.read(transfer(picture, [picture]));
      if (texts.length === 0) setTold('No code was found on this picture. Nearer, straight, and without a shine.');
      else await take(texts);
    } catch (error) {
      if (!(error instanceof NoPicture)) throw error;
      setTold(error.message);
    }
  }

  return (
    <div className={styles.scanner} data-scan={camera}>
      {camera === 'none' ? (
        <p>No camera can be used here. Take or choose a picture of the code.</p>
      ) : (
        <video ref={screen} className={styles.screen} muted playsInline aria-label="What the camera sees" />
      )}
      {told !== null && <Alert type="warning" showIcon title={told} role="alert" />}
      {several.length > 0 && (
        <ul className={styles.several} aria-label="Several codes">
          {several.map((one) => (
            <li key={one.path}>
              <Button onClick={() => go(one)}>Go to {one.what}</Button>
            </li>
          ))}
        </ul>
      )}
      <div className={looks.rowActions}>
        <PictureButton label="Take a picture" camera onTaken={readFirst} />
        <PictureButton label="Choose a picture" onTaken={readFirst} />
      </div>
      <p className={looks.quiet}>
        The tag of a cable or a job, a unit’s serial number, a bag’s label. A scanner that types works in the search
        above as well.
      </p>
    </div>
  );
}
