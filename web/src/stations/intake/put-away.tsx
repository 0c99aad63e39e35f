import { useState } from 'react';
import { Button } from 'antd';
import { useMay } from '../../access/use-may.ts';
import { beside } from '../../controls/beside.tsx';
import { useDesk } from '../../job/job-context.ts';
import styles from './put-away.module.css';

const PutAwayDialog = beside(
  () => import('./put-away-dialog.tsx'),
  () => null,
);

/** An owner puts away a job that was made by mistake; it leaves the list, and nothing of it is lost. */
export function PutAway() {
  const { job, locked } = useDesk();
  const may = useMay('own');
  const [open, setOpen] = useState(false);
  if (!may || job.state !== 'open') return null;
  return (
    <div className={styles.offer}>
      <Button disabled={locked} onClick={() => setOpen(true)}>
        Put this job away …
      </Button>
      {open && <PutAwayDialog onClose={() => setOpen(false)} />}
    </div>
  );
}
