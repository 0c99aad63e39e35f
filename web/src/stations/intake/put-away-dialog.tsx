import { Dialog } from '../../controls/dialog.tsx';
import { Primary, TextField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { useTypedText } from '../../offline/typed-texts.ts';
import styles from './put-away-dialog.module.css';

/** Why a job is put away; without that it is not. */
export default function PutAwayDialog({ onClose }: { readonly onClose: () => void }) {
  const { job, act } = useDesk();
  // Whoever turns back finds it again.
  const [reason, setReason] = useTypedText(`${job.code}.put-away`);
  const why = reason.trim();
  function put(): void {
    if (why === '' || act({ kind: 'put-away', reason: why, basedOn: job.stateVersion }) !== null) return;
    setReason('');
    onClose();
  }
  return (
    <Dialog title={`Put ${job.code} away`} onClose={onClose}>
      <form
        className={styles.form}
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
  );
}
