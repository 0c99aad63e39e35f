import { useState } from 'react';
import { Button, Input } from 'antd';
import { useStore } from 'react-redux';
import { roleText } from '@fairwatt/contract';
import { problemOf, useAccessQuery, useChangeOwnSecretMutation, useSignOutMutation } from '../app/api.ts';
import { type AppState } from '../app/store.ts';
import { FormField, SheetForm } from '../controls/form.tsx';
import { Dialog } from '../controls/dialog.tsx';
import { forgetAnswers } from '../offline/kept-answer.ts';
import { sentOff } from '../offline/sent-off.ts';
import { looks } from '../looks/looks.ts';
import { signs } from '../controls/signs.tsx';
import styles from './access.module.css';
import { noSecret, SecretFields } from './secret-fields.tsx';
import { SessionsTable } from './sessions-table.tsx';
import { SignInForm } from './sign-in-form.tsx';
import { givenSecret } from './words.ts';

/** Another person at the same bench, one's own secret, and the way out. */
export default function PersonDialog({ onClose }: { readonly onClose: () => void }) {
  const store = useStore<AppState>();
  const access = useAccessQuery();
  const [signOut] = useSignOutMutation();
  const [told, setTold] = useState<string | null>(null);
  const [view, setView] = useState<'switch' | 'secret' | 'sessions'>('switch');
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
    location.assign('/jobs');
  }
  return (
    <Dialog title={`${person.name}, ${roleText[person.role].name.toLowerCase()}`} onClose={onClose}>
      {view === 'secret' && <OwnSecret name={person.name} onDone={onClose} />}
      {view === 'sessions' && (
        <>
          <p className={looks.quiet}>
            Each ends by itself after twelve hours. End one that you do not know, and change your secret.
          </p>
          <SessionsTable of="me" />
          <div className={styles['row']}>
            <Button icon={signs.previous} autoFocus onClick={() => setView('switch')}>
              Back
            </Button>
          </div>
        </>
      )}
      {view === 'switch' && (
        <>
          <p className={looks.quiet}>Somebody else goes on here; what is typed stays.</p>
          <SignInForm
            access={{ ...access.data, names: access.data.names.filter(({ id }) => id !== person.id) }}
            before={() => sentOff(store)}
            onIn={onClose}
          />
          <div className={styles['row']}>
            <Button onClick={() => setView('secret')}>Change my PIN or passphrase</Button>
            <Button onClick={() => setView('sessions')}>Where I am signed in</Button>
            <Button icon={signs.signOut} onClick={() => void leave()}>
              Sign out
            </Button>
          </div>
          {told !== null && (
            <div className={looks.errorText} role="alert">
              {told}
            </div>
          )}
        </>
      )}
    </Dialog>
  );
}

function OwnSecret({ name, onDone }: { readonly name: string; readonly onDone: () => void }) {
  const [change, { isLoading }] = useChangeOwnSecretMutation();
  return (
    <SheetForm
      initial={{ ...noSecret, was: '' }}
      act="Change it"
      busy={isLoading}
      onSend={async ({ was, secret }) => {
        const answer = await change({ was, secret });
        if (answer.error !== undefined) return problemOf(answer.error);
        onDone();
        return null;
      }}
    >
      <FormField name="was" label="The one you have now" schema={givenSecret}>
        <Input type="password" maxLength={200} autoComplete="current-password" />
      </FormField>
      <SecretFields about={[name]} />
      <p className={looks.quiet}>Your sessions on other devices end with it.</p>
    </SheetForm>
  );
}
