import { useState } from 'react';
import { Button } from 'antd';
import { Dialog } from '../../controls/dialog.tsx';
import { Primary, TextField } from '../../controls/fields.tsx';
import { useMay } from '../../access/use-may.ts';
import { useDesk } from '../../job/job-context.ts';
import styles from './put-away.module.css';

/** An owner puts away a job that was made by mistake; it leaves the list, and nothing of it is lost. */
export function PutAway() {
  const { job, act, locked } = useDesk();
  const may = useMay('own');
  const [reason, setReason] = useState<string | null>(null);
  if (!may || job.state !== 'open') return null;
  const why = reason?.trim() ?? '';
  function put(): void {
    if (why !== '' && act({ kind: 'put-away', reason: why, basedOn: job.stateVersion }) === null) setReason(null);
  }
  return (
    <div className={styles['offer']}>
      <Button disabled={locked} onClick={() => setReason('')}>
        Put this job away …
      </Button>
      {reason !== null && (
        <Dialog title={`Put ${job.code} away`} onClose={() => setReason(null)}>
          <form
            className={styles['form']}
            onSubmit={(event) => {
              event.preventDefault();
              put();
            }}
          >
            <p>It leaves the list of jobs and can be taken out again; nothing of it is lost.</p>
            <TextField label="Why" value={reason} maxLength={200} onChange={setReason} />
            <Primary disabled={why === ''} onClick={put}>
              Put it away
            </Primary>
          </form>
        </Dialog>
      )}
    </div>
  );
}
