import { Form, Input, Select } from 'antd';
import { ownerMessageSchema, type Access } from '@fairwatt/contract';
import { api, problemOf, useMakeOwnerMutation } from '../app/api.ts';
import { allTags } from '../app/endpoints/build.ts';
import { useAppDispatch } from '../app/store.ts';
import { FormField, SheetForm } from '../controls/form.tsx';
import { looks } from '../looks/looks.ts';
import { noSecret, SecretFields, type TypedSecret } from './secret-fields.tsx';
import { codePrefixField, deviceName, personName } from './words.ts';

const another = '+';

interface Typed extends TypedSecret, Record<string, unknown> {
  readonly code: string;
  readonly person: string;
  readonly name: string;
  readonly device: string;
  readonly shopName: string;
  readonly prefix: string;
}

/** Whoever reads the console makes an owner with the code that stands there; the first one names the shop. */
export function OwnerForm({ access }: { readonly access: Access }) {
  const dispatch = useAppDispatch();
  const [form] = Form.useForm<Typed>();
  const here = access.ownerless ? access.names : [];
  const isNew = access.ownerless && here.length === 0;
  const initial: Typed = {
    ...noSecret,
    code: '',
    person: here[0]?.id ?? another,
    name: '',
    device: '',
    shopName: '',
    prefix: '',
  };
  const person = Form.useWatch('person', form) ?? initial.person;
  const name = Form.useWatch('name', form) ?? '';
  const chosen = here.find(({ id }) => id === person)?.name ?? name;
  const [make, { isLoading }] = useMakeOwnerMutation();
  return (
    <SheetForm<Typed>
      form={form}
      initial={initial}
      act="Become the owner"
      busy={isLoading}
      onSend={async (typed) => {
        const answer = await make({
          code: typed.code,
          person: typed.person === another ? null : typed.person,
          name: typed.person === another ? typed.name : '',
          secret: typed.secret,
          device: typed.device.trim(),
          shop: isNew ? { name: typed.shopName, codePrefix: typed.prefix.trim().toUpperCase() } : null,
        });
        if (answer.error !== undefined) return problemOf(answer.error);
        dispatch(api.util.invalidateTags([...allTags]));
        return null;
      }}
    >
      <FormField name="code" label="Code of the console" schema={ownerMessageSchema.shape.code}>
        <Input maxLength={20} className={looks.fig} autoComplete="one-time-code" placeholder="ABCDE-FGHJK" autoFocus />
      </FormField>
      {here.length > 0 && (
        <FormField name="person" label="Who are you?">
          <Select
            options={[
              ...here.map((one) => ({ value: one.id, label: one.name })),
              { value: another, label: 'Somebody else' },
            ]}
          />
        </FormField>
      )}
      {person === another && (
        <FormField name="name" label="Your name" schema={personName}>
          <Input maxLength={60} autoComplete="name" />
        </FormField>
      )}
      <SecretFields about={[chosen, access.shop]} />
      <FormField name="device" label="This device" schema={deviceName}>
        <Input maxLength={60} placeholder="Such as “Bench tablet”; a PIN is enough on it from now on" />
      </FormField>
      {isNew && (
        <>
          <FormField half name="shopName" label="Name of the shop">
            <Input maxLength={80} placeholder="As on its papers" />
          </FormField>
          <FormField half name="prefix" label="Codes of jobs begin with" schema={codePrefixField}>
            <Input maxLength={2} placeholder="FW" />
          </FormField>
        </>
      )}
    </SheetForm>
  );
}
