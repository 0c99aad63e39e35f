import { useState } from 'react';
import { Button, Input, Select } from 'antd';
import { codePrefixPattern, newSecretSchema, type Access } from '@fairwatt/contract';
import { allTags, api, problemOf, useMakeOwnerMutation } from '../app/api.ts';
import { useAppDispatch } from '../app/store.ts';
import styles from './access.module.css';
import { SecretFields, type TypedSecret } from './secret-fields.tsx';

const another = '+';

/** Whoever reads the console makes an owner with the code that stands there. */
export function OwnerForm({ access }: { readonly access: Access }) {
  const dispatch = useAppDispatch();
  const here = access.ownerless ? access.names : [];
  const [code, setCode] = useState('');
  const [person, setPerson] = useState(here[0]?.id ?? another);
  const [name, setName] = useState('');
  const [device, setDevice] = useState('');
  const [typed, setTyped] = useState<TypedSecret>({ secret: '', again: '' });
  const [told, setTold] = useState<string | null>(null);
  const [make, { isLoading }] = useMakeOwnerMutation();
  const [shopName, setShopName] = useState('');
  const [prefix, setPrefix] = useState('');
  const wantedPrefix = prefix.trim().toUpperCase();
  const isNew = access.ownerless && here.length === 0;

  function mistake(): string | null {
    if (code.replace(/[^a-z0-9]/gi, '').length !== 10)
      return 'The code has ten letters and digits, as the console shows.';
    if (person === another && name.trim() === '') return 'Write your name, as it shall stand under what you do.';
    if (device.trim() === '') return 'Call this device something, such as “Bench tablet”.';
    if (wantedPrefix !== '' && !codePrefixPattern.test(wantedPrefix))
      return 'Codes begin with two letters, such as FW.';
    const checked = newSecretSchema.safeParse(typed.secret);
    if (!checked.success) return `The secret: ${checked.error.issues[0]?.message ?? 'is not one'}.`;
    return typed.secret === typed.again ? null : 'The two secrets are not the same.';
  }
  async function save(): Promise<void> {
    const wrong = mistake();
    if (wrong !== null) {
      setTold(wrong);
      return;
    }
    const answer = await make({
      code,
      person: person === another ? null : person,
      name: person === another ? name : '',
      secret: typed.secret,
      device: device.trim(),
      shop: isNew ? { name: shopName, codePrefix: wantedPrefix } : null,
    });
    if (answer.error === undefined) dispatch(api.util.invalidateTags([...allTags]));
    else setTold(problemOf(answer.error).title);
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
        <span className="name">Code of the console</span>
        <Input
          value={code}
          maxLength={20}
          className="fig"
          autoComplete="one-time-code"
          placeholder="ABCDE-FGHJK"
          autoFocus
          onChange={(event) => setCode(event.target.value)}
        />
      </label>
      {here.length > 0 && (
        <label className="field wide">
          <span className="name">Who are you?</span>
          <Select
            aria-label="Who are you?"
            value={person}
            onChange={setPerson}
            options={[
              ...here.map((one) => ({ value: one.id, label: one.name })),
              { value: another, label: 'Somebody else' },
            ]}
          />
        </label>
      )}
      {person === another && (
        <label className="field wide">
          <span className="name">Your name</span>
          <Input value={name} maxLength={60} autoComplete="name" onChange={(event) => setName(event.target.value)} />
        </label>
      )}
      <SecretFields typed={typed} onTyped={setTyped} />
      <label className="field wide">
        <span className="name">This device</span>
        <Input
          value={device}
          maxLength={60}
          placeholder="Such as “Bench tablet”; a PIN is enough on it from now on"
          onChange={(event) => setDevice(event.target.value)}
        />
      </label>
      {isNew && (
        <>
          <label className="field">
            <span className="name">Name of the shop</span>
            <Input
              value={shopName}
              maxLength={80}
              placeholder="As it shall stand on papers"
              onChange={(event) => setShopName(event.target.value)}
            />
          </label>
          <label className="field">
            <span className="name">Codes of jobs begin with</span>
            <Input value={prefix} maxLength={2} placeholder="FW" onChange={(event) => setPrefix(event.target.value)} />
          </label>
        </>
      )}
      {told !== null && (
        <div className="error-text wide" role="alert">
          {told}
        </div>
      )}
      <Button type="primary" className="primary wide" htmlType="submit" loading={isLoading}>
        <span>Become the owner</span>
        <kbd aria-hidden="true">↵</kbd>
      </Button>
    </form>
  );
}
