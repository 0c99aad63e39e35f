import { useState } from 'react';
import { Button, Input } from 'antd';
import { useLocation, useNavigate } from 'react-router';
import { allTags, api, problemOf, useAccessQuery, useEnrolDeviceMutation } from '../app/api.ts';
import { useAppDispatch } from '../app/store.ts';
import styles from './access.module.css';
import { WayIn } from './way-in.tsx';

/** A browser becomes a device of the shop by the code that an owner's screen shows. */
export default function EnrolPage() {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const { hash } = useLocation();
  const access = useAccessQuery();
  const [code, setCode] = useState(hash.slice(1));
  const [told, setTold] = useState<string | null>(null);
  const [enrol, { isLoading }] = useEnrolDeviceMutation();
  async function save(): Promise<void> {
    const answer = await enrol({ code });
    if (answer.error !== undefined) {
      setTold(problemOf(answer.error).title);
      return;
    }
    dispatch(api.util.invalidateTags([...allTags]));
    await navigate('/jobs', { replace: true });
  }
  return (
    <WayIn
      shop={access.data?.shop ?? 'this shop'}
      title="Enrol this device"
      say="From then on a PIN is enough on it. An owner ends that at any time."
    >
      <form
        className={styles['form']}
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <label className="field wide">
          <span className="name">Code of the owner’s screen</span>
          <Input
            value={code}
            maxLength={20}
            className="fig"
            autoFocus
            placeholder="ABCDE-FGHJK"
            onChange={(event) => setCode(event.target.value)}
          />
        </label>
        {told !== null && (
          <div className="error-text wide" role="alert">
            {told}
          </div>
        )}
        <Button type="primary" className="primary wide" htmlType="submit" loading={isLoading}>
          <span>Enrol it</span>
          <kbd aria-hidden="true">↵</kbd>
        </Button>
      </form>
    </WayIn>
  );
}
