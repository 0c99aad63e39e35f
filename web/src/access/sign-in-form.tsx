import { useEffect, useRef, useState } from 'react';
import { Form, Input, type InputRef } from 'antd';
import { isPin, type Access } from '@fairwatt/contract';
import { api, problemOf, useSignInMutation } from '../app/api.ts';
import { allTags } from '../app/endpoints/build.ts';
import { useAppDispatch } from '../app/store.ts';
import { FormField, SheetForm } from '../controls/form.tsx';
import { looks } from '../looks/looks.ts';
import { NameField } from './name-field.tsx';
import { givenSecret } from './words.ts';

interface Typed extends Record<string, unknown> {
  readonly name: string;
  readonly secret: string;
}

/** On an enrolled device names are picked; elsewhere a name is written, and a PIN is not enough. */
export function SignInForm({
  access,
  chosenFirst = null,
  before,
  onIn,
}: {
  readonly access: Access;
  /** Whose name is picked at first, by id. */
  readonly chosenFirst?: string | null;
  /** Waited for before the person changes, such as what is still on its way. */
  readonly before?: () => Promise<void>;
  readonly onIn?: () => void;
}) {
  const dispatch = useAppDispatch();
  const [form] = Form.useForm<Typed>();
  const known = access.names;
  const [initial] = useState<Typed>(() => ({
    name: (known.length === 1 ? known[0] : known.find(({ id }) => id === chosenFirst))?.name ?? '',
    secret: '',
  }));
  const name = Form.useWatch('name', form) ?? initial.name;
  const withPin = known.find((one) => one.name === name)?.pin === true;
  const [signIn, { isLoading }] = useSignInMutation();
  const field = useRef<InputRef>(null);
  const enrolled = access.device !== null;
  useEffect(() => {
    if (enrolled && name !== '') field.current?.focus();
  }, [enrolled, name]);

  return (
    <SheetForm<Typed>
      form={form}
      initial={initial}
      act="Sign in"
      busy={isLoading}
      onSend={async (typed) => {
        await before?.();
        const answer = await signIn(typed);
        if (answer.error !== undefined) {
          form.setFieldValue('secret', '');
          field.current?.focus();
          return problemOf(answer.error).title;
        }
        dispatch(api.util.invalidateTags([...allTags]));
        onIn?.();
        return null;
      }}
    >
      <NameField names={enrolled ? known.map((one) => one.name) : []} />
      <FormField name="secret" label={withPin ? 'PIN, six digits' : 'PIN or passphrase'} schema={givenSecret}>
        <Input
          ref={field}
          type="password"
          maxLength={200}
          autoComplete="current-password"
          inputMode={withPin ? 'numeric' : 'text'}
          onChange={({ target }) => {
            // A PIN is whole with its sixth digit.
            if (withPin && isPin(target.value)) setTimeout(() => form.submit());
          }}
        />
      </FormField>
      {!enrolled && (
        <p className={looks.quiet}>
          This device is not enrolled, so a PIN is not enough here: a passphrase is, or an owner enrols it at Settings,
          People and devices.
        </p>
      )}
    </SheetForm>
  );
}
