import { useEffect, useRef, useState } from 'react';
import { Button, Input, Radio, type InputRef } from 'antd';
import { isPin, type Access } from '@fairwatt/contract';
import { allTags, api, problemOf, useSignInMutation } from '../app/api.ts';
import { useAppDispatch } from '../app/store.ts';
import styles from './access.module.css';

interface Chosen {
  readonly id: string;
  readonly name: string;
  readonly pin: boolean;
}

/** On an enrolled device names are picked; elsewhere a name is written, and a PIN is not enough. */
export function SignInForm({
  access,
  chosenFirst = null,
  before,
  onIn,
}: {
  readonly access: Access;
  readonly chosenFirst?: string | null;
  /** Waited for before the person changes, such as what is still on its way. */
  readonly before?: () => Promise<void>;
  readonly onIn?: () => void;
}) {
  const dispatch = useAppDispatch();
  const known = access.names;
  const only = known.length === 1 ? known[0]! : (known.find(({ id }) => id === chosenFirst) ?? null);
  const [chosen, setChosen] = useState<Chosen | null>(only);
  const [typedName, setTypedName] = useState('');
  const [secret, setSecret] = useState('');
  const [told, setTold] = useState<string | null>(null);
  const [signIn, { isLoading }] = useSignInMutation();
  const field = useRef<InputRef>(null);
  const enrolled = access.device !== null;
  const name = chosen?.name ?? typedName;
  useEffect(() => {
    if (chosen !== null) field.current?.focus();
  }, [chosen]);

  async function enter(given: string): Promise<void> {
    if (name.trim() === '' || given === '') {
      setTold(name.trim() === '' ? 'Say who you are first.' : 'Enter the secret that belongs to the name.');
      return;
    }
    await before?.();
    const answer = await signIn({ name, secret: given });
    if (answer.error !== undefined) {
      setTold(problemOf(answer.error).title);
      setSecret('');
      field.current?.focus();
      return;
    }
    dispatch(api.util.invalidateTags([...allTags]));
    onIn?.();
  }
  function type(given: string): void {
    setSecret(given);
    setTold(null);
    // A PIN is whole with its sixth digit.
    if (chosen?.pin === true && isPin(given)) void enter(given);
  }

  return (
    <form
      className={styles['form']}
      onSubmit={(event) => {
        event.preventDefault();
        void enter(secret);
      }}
    >
      {enrolled ? (
        <Radio.Group
          className={styles['names'] ?? ''}
          aria-label="Name"
          optionType="button"
          buttonStyle="solid"
          value={chosen?.id ?? null}
          options={known.map(({ id, name: shown }) => ({ value: id, label: shown }))}
          onChange={({ target }) => {
            setChosen(known.find(({ id }) => id === target.value) ?? null);
            setTold(null);
          }}
        />
      ) : (
        <label className="field wide">
          <span className="name">Name</span>
          <Input
            value={typedName}
            maxLength={60}
            autoComplete="username"
            autoFocus
            onChange={(event) => setTypedName(event.target.value)}
          />
        </label>
      )}
      <label className="field wide">
        <span className="name">{chosen?.pin === true ? 'PIN, six digits' : 'PIN or passphrase'}</span>
        <Input
          ref={field}
          type="password"
          value={secret}
          maxLength={200}
          autoComplete="current-password"
          inputMode={chosen?.pin === true ? 'numeric' : 'text'}
          disabled={isLoading}
          status={told === null ? '' : 'error'}
          onChange={(event) => type(event.target.value)}
        />
      </label>
      {told !== null && (
        <div className="error-text wide" role="alert">
          {told}
        </div>
      )}
      <Button type="primary" className="primary wide" htmlType="submit" loading={isLoading}>
        <span>Sign in</span>
        <kbd aria-hidden="true">↵</kbd>
      </Button>
      {!enrolled && (
        <p className="quiet">
          This device is not enrolled, so a PIN is not enough here: a passphrase is, or an owner enrols it at Settings,
          People and devices.
        </p>
      )}
    </form>
  );
}
