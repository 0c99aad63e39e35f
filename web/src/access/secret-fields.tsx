import { Form, Input } from 'antd';
import { z } from 'zod';
import { newSecretSchema } from '@fairwatt/contract';
import { FormField } from '../controls/form.tsx';

export interface TypedSecret {
  readonly secret: string;
  readonly again: string;
}
export const noSecret: TypedSecret = { secret: '', again: '' };

/** A new secret, typed twice. */
export function SecretFields({ optional = false }: { readonly optional?: boolean }) {
  const schema = optional ? z.union([z.literal(''), newSecretSchema]) : newSecretSchema;
  const secret = Form.useWatch<string | undefined>('secret') ?? '';
  return (
    <>
      <FormField half name="secret" label="New PIN or passphrase" schema={schema}>
        <Input type="password" maxLength={200} autoComplete="new-password" placeholder="6 digits, or 12 letters" />
      </FormField>
      <FormField
        half
        name="again"
        label="Once more"
        schema={z.string().refine((again) => again === secret, 'is not the same')}
      >
        <Input type="password" maxLength={200} autoComplete="new-password" />
      </FormField>
    </>
  );
}
