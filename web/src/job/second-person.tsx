import { useState } from 'react';
import { Form, Input } from 'antd';
import { useStore } from 'react-redux';
import { basedOnStanding, type Act, type Job } from '@fairwatt/core';
import { actPermissions, permissions, roleText } from '@fairwatt/contract';
import { NameField } from '../access/name-field.tsx';
import { givenSecret } from '../access/words.ts';
import { api, problemOf, useAccessQuery, useSignSecondMutation } from '../app/api.ts';
import { useAppDispatch, type AppState } from '../app/store.ts';
import { Dialog } from '../controls/dialog.tsx';
import { FormField, SheetForm } from '../controls/form.tsx';
import { sentOff } from '../offline/sent-off.ts';
import { looks } from '../looks/looks.ts';

interface Typed extends Record<string, unknown> {
  readonly name: string;
  readonly secret: string;
}

/** A second person signs what the one who is signed in may not decide alone; that one stays signed in. */
export default function SecondPerson({
  job,
  act,
  by,
  onClose,
}: {
  readonly job: Job;
  readonly act: Act;
  readonly by: string;
  readonly onClose: () => void;
}) {
  const dispatch = useAppDispatch();
  const store = useStore<AppState>();
  const [form] = Form.useForm<Typed>();
  const [id] = useState(() => crypto.randomUUID());
  const names = (useAccessQuery().data?.names ?? []).filter((one) => one.id !== by);
  const [sign, { isLoading }] = useSignSecondMutation();
  const needs = permissions[actPermissions[act.kind]];
  async function send({ name, secret }: Typed) {
    // What this act was decided on has to be there first.
    await sentOff(store);
    const standing = api.endpoints.job.select(job.code)(store.getState()).data ?? job;
    const message = { id, by, act: basedOnStanding(act, standing) };
    const answer = await sign({ code: job.code, name, secret, message });
    if (answer.error !== undefined) return problemOf(answer.error);
    await dispatch(api.util.upsertQueryData('job', job.code, answer.data));
    onClose();
    return null;
  }
  return (
    <Dialog title="A second person signs" onClose={onClose}>
      <p className={looks.quiet}>
        To {needs.what} takes {needs.roles.map((role) => roleText[role].name.toLowerCase()).join(' or ')}. It stands
        under that name; you stay signed in.
      </p>
      <SheetForm<Typed>
        form={form}
        initial={{ name: names.length === 1 ? (names[0]?.name ?? '') : '', secret: '' }}
        act="Sign"
        busy={isLoading}
        onSend={send}
      >
        <NameField names={names.map(({ name }) => name)} />
        <FormField name="secret" label="Their PIN or passphrase" schema={givenSecret}>
          <Input type="password" maxLength={200} autoComplete="off" />
        </FormField>
      </SheetForm>
    </Dialog>
  );
}
