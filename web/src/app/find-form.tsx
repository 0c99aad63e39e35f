import { lazy, Suspense, useState, type RefObject } from 'react';
import { Button, Input, type InputRef } from 'antd';
import { useNavigate } from 'react-router';
import { useScanned } from '../scan/use-scanned.ts';
import { looks } from '../looks/looks.ts';
import { signs } from '../controls/signs.tsx';
import styles from './find-form.module.css';

const ScanDialog = lazy(() => import('../scan/scan-dialog.tsx'));

/** Finds jobs by words, and whatever a code is of: typed by a hand-held scanner, or read by the camera. */
export function FindForm({ field }: { readonly field: RefObject<InputRef | null> }) {
  const navigate = useNavigate();
  const leadsTo = useScanned();
  const [scanning, setScanning] = useState(false);
  async function find(): Promise<void> {
    const typed = field.current?.input?.value ?? '';
    // A scanner types whole addresses; whatever a person types is looked for.
    const found = /^https?:\/\//i.test(typed.trim()) ? await leadsTo(typed) : null;
    void navigate(found?.path ?? `/jobs?search=${encodeURIComponent(typed)}`);
  }
  return (
    <>
      <form
        className={looks.push}
        role="search"
        onSubmit={(event) => {
          event.preventDefault();
          void find();
        }}
      >
        <Input
          ref={field}
          className={styles.barSearch}
          type="search"
          name="search"
          placeholder="Find job, part  /"
          aria-label="Find job or part"
          maxLength={100}
        />
      </form>
      <Button
        type="text"
        className={looks.barButton}
        aria-label="Scan a code"
        title="Scan a code"
        aria-haspopup="dialog"
        icon={signs.scan}
        onClick={() => setScanning(true)}
      />
      <Suspense fallback={null}>{scanning && <ScanDialog onClose={() => setScanning(false)} />}</Suspense>
    </>
  );
}
