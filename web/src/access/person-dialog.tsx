import { useState } from 'react';
import { Button, Input } from 'antd';
import { useStore } from 'react-redux';
import { roleText } from '@fairwatt/contract';
import { problemOf, useAccessQuery, useChangeOwnSecretMutation, useSignOutMutation } from '../app/api.ts';
import { session } from '../app/session.ts';
import { useAppDispatch, type AppState } from '../app/store.ts';
import { Dialog } from '../controls/dialog.tsx';
import { forgetAnswers } from '../offline/kept-answer.ts';
import { sentOff } from '../offline/sent-off.ts';
import styles from './access.module.css';
import { SecretFields, type TypedSecret } from './secret-fields.tsx';
import { SignInForm } from './sign-in-form.tsx';

/** Another person at the same bench, one's own secret, and the way out. */
export default function PersonDialog({ onClose }: { readonly onClose: () => void }) {
  const dispatch = useAppDispatch();
  const store = useStore<AppState>();
  const access = useAccessQuery();
  const [signOut] = useSignOutMutation();
  const [told, setTold] = useState<string | null>(null);
  const [own, setOwn] = useState(false);
  const person = access.data?.person ?? null;
  if (access.data === undefined || person === null) return null;
  async function leave(): Promise<void> {
    await sentOff(store);
    const answer = await signOut();
    if (answer.error !== undefined) {
      setTold(problemOf(answer.error).title);
      return;
    }
    // Whoever comes next sees nothing of this shop before signing in.
    await forgetAnswers();
    dispatch(session.ended());
    location.assign('/jobs');
  }
  return (
    <Dialog title={`${person.name}, ${roleText[person.role].name.toLowerCase()}`} onClose={onClose}>
      {own ? (
        <OwnSecret onDone={onClose} />
      ) : (
        <>
          <p className="quiet">Somebody else goes on here; what is typed stays.</p>
          <SignInForm
            access={{ ...access.data, names: access.data.names.filter(({ id }) => id !== person.id) }}
            before={() => sentOff(store)}
            onIn={onClose}
          />
          <div className={styles['row']}>
            <Button onClick={() => setOwn(true)}>Change my PIN or passphrase</Button>
            <Button onClick={() => void leave()}>Sign out</Button>
          </div>
          {told !== null && (
            <div className="error-text" role="alert">
              {told}
            </div>
          )}
        </>
      )}
    </Dialog>
  );
}

function OwnSecret({ onDone }: { readonly onDone: () => void }) {
  const [was, setWas] = useState('');
  const [typed, setTyped] = useState<TypedSecret>({ secret: '', again: '' });
  const [told, setTold] = useState<string | null>(null);
  const [change, { isLoading }] = useChangeOwnSecretMutation();
  async function save(): Promise<void> {
    if (typed.secret !== typed.again) {
      setTold('The two secrets are not the same.');
      return;
    }
    const answer = await change({ was, secret: typed.secret });
    if (answer.error === undefined) {
      onDone();
      return;
    }
    const { title, errors } = problemOf(answer.error);
    setTold([title, ...(errors ?? []).map(({ message }) => message)].join(': '));
  }
  return (
    <form
      className={styles['form']}
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <label className="field wide">
        <span className="name">The one you have now</span>
        <Input
          type="password"
          value={was}
          maxLength={200}
          autoComplete="current-password"
          onChange={(event) => setWas(event.target.value)}
        />
      </label>
      <SecretFields typed={typed} onTyped={setTyped} />
      {told !== null && (
        <div className="error-text wide" role="alert">
          {told}
        </div>
      )}
      <Button type="primary" className="primary wide" htmlType="submit" loading={isLoading}>
        <span>Change it</span>
        <kbd aria-hidden="true">↵</kbd>
      </Button>
      <p className="quiet">Your sessions on other devices end with it.</p>
    </form>
  );
}
