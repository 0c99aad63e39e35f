import { useState } from 'react';
import { Button, Input, Select, Table, Tag, type TableColumnsType } from 'antd';
import { newSecretSchema, roles, roleText, standings, type Person, type Role, type Standing } from '@fairwatt/contract';
import {
  problemOf,
  useAddPersonMutation,
  useChangePersonMutation,
  useEndSessionsMutation,
  useGiveSecretMutation,
} from '../app/api.ts';
import { Dialog } from '../controls/dialog.tsx';
import styles from './access.module.css';
import { SecretFields, type TypedSecret } from './secret-fields.tsx';

const secretText = { pin: 'PIN', passphrase: 'passphrase' } as const;

/** What is wrong with a secret typed twice; null for nothing. */
function mistakeIn({ secret, again }: TypedSecret): string | null {
  const checked = newSecretSchema.safeParse(secret);
  if (!checked.success) return `The secret: ${checked.error.issues[0]?.message ?? 'is not one'}.`;
  return secret === again ? null : 'The two secrets are not the same.';
}

/** Everybody with what they may do and whether they can sign in. */
export function PeopleBlock({ people }: { readonly people: readonly Person[] }) {
  const [change] = useChangePersonMutation();
  const [endSessions] = useEndSessionsMutation();
  const [told, setTold] = useState<string | null>(null);
  const [dialog, setDialog] = useState<'none' | 'add' | Person>('none');
  async function turnInto(person: Person, role: Standing): Promise<void> {
    const answer = await change({ id: person.id, name: person.name, role, basedOn: person.version });
    setTold(answer.error === undefined ? null : problemOf(answer.error).title);
  }
  const columns: TableColumnsType<Person> = [
    {
      title: 'Name',
      dataIndex: 'name',
      render: (name: string, person) => (
        <>
          {name} {person.locked && <Tag color="error">locked after {person.failures} tries</Tag>}
        </>
      ),
    },
    {
      title: 'Role',
      render: (_: unknown, person) => (
        <Select<Standing>
          aria-label={`Role of ${person.name}`}
          value={person.role}
          popupMatchSelectWidth={false}
          options={standings.map((role) => ({
            value: role,
            label: roleText[role].name,
            title: roleText[role].may,
          }))}
          onChange={(role) => void turnInto(person, role)}
        />
      ),
    },
    {
      title: 'Signs in with',
      render: (_: unknown, { secret }) =>
        secret === null ? <span className="quiet">nothing yet</span> : secretText[secret],
    },
    {
      title: 'Signed in',
      align: 'right',
      render: (_: unknown, { sessions }) => <span className="fig">{sessions}</span>,
    },
    {
      title: '',
      align: 'right',
      render: (_: unknown, person) => (
        <span className={styles['acts']}>
          <Button disabled={person.role === 'none'} onClick={() => setDialog(person)}>
            {person.secret === null ? 'Give a secret' : 'New secret'}
          </Button>
          <Button disabled={person.sessions === 0} onClick={() => void endSessions(person.id)}>
            Sign out everywhere
          </Button>
        </span>
      ),
    },
  ];
  return (
    <section className="block" aria-label="People">
      <span className="label">People</span>
      <p className="quiet">
        Owners say who may do what. Trainees record; findings, sign-offs and closing need a second person. The counter
        does clients, intake and papers. A name only stays on what it signed before, and signs nothing more.
      </p>
      {told !== null && (
        <div className="error-text" role="alert">
          {told}
        </div>
      )}
      <Table<Person>
        className={styles['people'] ?? ''}
        size="small"
        rowKey="id"
        pagination={false}
        scroll={{ x: 'max-content' }}
        columns={columns}
        dataSource={[...people]}
      />
      <div className={styles['row']}>
        <Button onClick={() => setDialog('add')}>Add somebody</Button>
      </div>
      {dialog === 'add' && <AddPerson onClose={() => setDialog('none')} />}
      {typeof dialog === 'object' && <GiveSecret person={dialog} onClose={() => setDialog('none')} />}
    </section>
  );
}

function AddPerson({ onClose }: { readonly onClose: () => void }) {
  const [add, { isLoading }] = useAddPersonMutation();
  const [name, setName] = useState('');
  const [role, setRole] = useState<Role>('technician');
  const [typed, setTyped] = useState<TypedSecret>({ secret: '', again: '' });
  const [told, setTold] = useState<string | null>(null);
  async function save(): Promise<void> {
    const without = typed.secret === '' && typed.again === '';
    const wrong = name.trim() === '' ? 'Write a name.' : without ? null : mistakeIn(typed);
    if (wrong !== null) {
      setTold(wrong);
      return;
    }
    const answer = await add({ name, role, secret: without ? null : typed.secret });
    if (answer.error === undefined) onClose();
    else setTold(problemOf(answer.error).title);
  }
  return (
    <Dialog title="Add somebody" onClose={onClose}>
      <form
        className={styles['form']}
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <label className="field">
          <span className="name">Their name</span>
          <Input value={name} maxLength={60} onChange={(event) => setName(event.target.value)} />
        </label>
        <label className="field">
          <span className="name">Role</span>
          <Select<Role>
            aria-label="Role of the new one"
            value={role}
            options={roles.map((one) => ({ value: one, label: roleText[one].name }))}
            onChange={setRole}
          />
        </label>
        <p className="quiet">{roleText[role].may}</p>
        <SecretFields typed={typed} onTyped={setTyped} />
        <p className="quiet">It can be given later too; without one nobody signs in under this name.</p>
        {told !== null && (
          <div className="error-text wide" role="alert">
            {told}
          </div>
        )}
        <Button type="primary" className="primary wide" htmlType="submit" loading={isLoading}>
          <span>Add</span>
          <kbd aria-hidden="true">↵</kbd>
        </Button>
      </form>
    </Dialog>
  );
}

function GiveSecret({ person, onClose }: { readonly person: Person; readonly onClose: () => void }) {
  const [give, { isLoading }] = useGiveSecretMutation();
  const [typed, setTyped] = useState<TypedSecret>({ secret: '', again: '' });
  const [told, setTold] = useState<string | null>(null);
  async function save(): Promise<void> {
    const wrong = mistakeIn(typed);
    if (wrong !== null) {
      setTold(wrong);
      return;
    }
    const answer = await give({ id: person.id, secret: typed.secret });
    if (answer.error === undefined) onClose();
    else setTold(problemOf(answer.error).title);
  }
  return (
    <Dialog title={`A secret for ${person.name}`} onClose={onClose}>
      <form
        className={styles['form']}
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <SecretFields typed={typed} onTyped={setTyped} />
        <p className="quiet">
          It takes a lock off, and ends the sessions of this person. Tell it by mouth; {person.name} changes it at the
          name at the top right.
        </p>
        {told !== null && (
          <div className="error-text wide" role="alert">
            {told}
          </div>
        )}
        <Button type="primary" className="primary wide" htmlType="submit" loading={isLoading}>
          <span>Give it</span>
          <kbd aria-hidden="true">↵</kbd>
        </Button>
      </form>
    </Dialog>
  );
}
