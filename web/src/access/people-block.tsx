import { useState } from 'react';
import { Button, Form, Input, Select, Tag } from 'antd';
import { roles, roleText, standings, type Person, type Role, type Standing } from '@fairwatt/contract';
import { problemOf } from '../app/api.ts';
import { looks } from '../looks/looks.ts';
import {
  useAddPersonMutation,
  useChangePersonMutation,
  useEndSessionsMutation,
  useGiveSecretMutation,
} from './people-api.ts';
import { FormField, SheetForm } from '../controls/form.tsx';
import { Dialog } from '../controls/dialog.tsx';
import { Sheet, type SheetColumn } from '../controls/sheet.tsx';
import { signs } from '../controls/signs.tsx';
import styles from './access.module.css';
import { noSecret, SecretFields, type TypedSecret } from './secret-fields.tsx';
import { personName } from './words.ts';

const toDo = <span className={looks.visuallyHidden}>What to do</span>;
const secretText = { pin: 'PIN', passphrase: 'passphrase' } as const;

interface NewPerson extends TypedSecret, Record<string, unknown> {
  readonly name: string;
  readonly role: Role;
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
  const columns: readonly SheetColumn<Person>[] = [
    {
      head: 'Name',
      names: true,
      cell: ({ name, locked, failures }) => (
        <>
          {name} {locked && <Tag color="error">locked after {failures} tries</Tag>}
        </>
      ),
    },
    {
      head: 'Role',
      cell: (person) => (
        <Select<Standing>
          aria-label={`Role of ${person.name}`}
          value={person.role}
          popupMatchSelectWidth={false}
          options={standings.map((role) => ({ value: role, label: roleText[role].name, title: roleText[role].may }))}
          onChange={(role) => void turnInto(person, role)}
        />
      ),
    },
    {
      head: 'Signs in with',
      cell: ({ secret }) => (secret === null ? <span className={looks.quiet}>nothing yet</span> : secretText[secret]),
    },
    { head: 'Signed in', className: looks.num, cell: ({ sessions }) => sessions },
    {
      cell: (person) => (
        <span className={styles['acts']}>
          <Button disabled={person.role === 'none'} onClick={() => setDialog(person)}>
            {person.secret === null ? 'Give a secret' : 'New secret'}
          </Button>
          <Button disabled={person.sessions === 0} onClick={() => void endSessions(person.id)}>
            Sign out everywhere
          </Button>
        </span>
      ),
      head: toDo,
    },
  ];
  return (
    <section className={looks.block} aria-label="People">
      <span className={looks.label}>People</span>
      <p className={looks.quiet}>
        Owners say who may do what. Trainees record; findings, sign-offs and closing need a second person. The counter
        does clients, intake and papers. A name only stays on what it signed before, and signs nothing more.
      </p>
      {told !== null && (
        <div className={looks.errorText} role="alert">
          {told}
        </div>
      )}
      <Sheet label="People" rows={people} rowKey={({ id }) => id} columns={columns} />
      <div className={styles['row']}>
        <Button icon={signs.add} onClick={() => setDialog('add')}>
          Add somebody
        </Button>
      </div>
      {dialog === 'add' && <AddPerson onClose={() => setDialog('none')} />}
      {typeof dialog === 'object' && <GiveSecret person={dialog} onClose={() => setDialog('none')} />}
    </section>
  );
}

function AddPerson({ onClose }: { readonly onClose: () => void }) {
  const [add, { isLoading }] = useAddPersonMutation();
  const [form] = Form.useForm<NewPerson>();
  const role = Form.useWatch('role', form) ?? 'technician';
  const name = Form.useWatch('name', form) ?? '';
  return (
    <Dialog title="Add somebody" onClose={onClose}>
      <SheetForm<NewPerson>
        form={form}
        initial={{ ...noSecret, name: '', role: 'technician' }}
        act="Add"
        busy={isLoading}
        onSend={async ({ name: called, secret, role: wanted }) => {
          const answer = await add({ name: called, role: wanted, secret: secret === '' ? null : secret });
          if (answer.error !== undefined) return problemOf(answer.error);
          onClose();
          return null;
        }}
      >
        <FormField half name="name" label="Their name" schema={personName}>
          <Input maxLength={60} />
        </FormField>
        <FormField half name="role" label="Role of the new one">
          <Select<Role> options={roles.map((one) => ({ value: one, label: roleText[one].name }))} />
        </FormField>
        <p className={looks.quiet}>{roleText[role].may}</p>
        <SecretFields optional about={[name]} />
        <p className={looks.quiet}>It can be given later too; without one nobody signs in under this name.</p>
      </SheetForm>
    </Dialog>
  );
}

function GiveSecret({ person, onClose }: { readonly person: Person; readonly onClose: () => void }) {
  const [give, { isLoading }] = useGiveSecretMutation();
  return (
    <Dialog title={`A secret for ${person.name}`} onClose={onClose}>
      <SheetForm
        initial={{ ...noSecret }}
        act="Give it"
        busy={isLoading}
        onSend={async ({ secret }) => {
          const answer = await give({ id: person.id, secret });
          if (answer.error !== undefined) return problemOf(answer.error);
          onClose();
          return null;
        }}
      >
        <SecretFields about={[person.name]} />
        <p className={looks.quiet}>
          It takes a lock off, and ends the sessions of this person. Tell it by mouth; {person.name} changes it at the
          name at the top right.
        </p>
      </SheetForm>
    </Dialog>
  );
}
