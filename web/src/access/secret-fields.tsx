import { useEffect, useState } from 'react';
import { Checkbox, Form, Input } from 'antd';
import { z } from 'zod';
import { newSecretSchema } from '@fairwatt/contract';
import type { SecretStrength } from '@fairwatt/contract/secret-strength';
import { FormField } from '../controls/form.tsx';
import { looks } from '../looks/looks.ts';
import { secretStrengthText } from './words.ts';

export interface TypedSecret {
  readonly secret: string;
  readonly again: string;
}
export const noSecret: TypedSecret = { secret: '', again: '' };

type Measure = (secret: string, about: readonly string[]) => SecretStrength;

/** What tells how easily a secret is guessed: lists of what people choose, fetched with the first such field. */
function useMeasure(): Measure | null {
  const [measure, setMeasure] = useState<{ readonly of: Measure } | null>(null);
  useEffect(() => {
    let wanted = true;
    // Where it cannot be fetched the server says it when the form is sent.
    void import('@fairwatt/contract/secret-strength').then(
      ({ strengthOf }) => wanted && setMeasure({ of: strengthOf }),
      () => undefined,
    );
    return () => {
      wanted = false;
    };
  }, []);
  return measure?.of ?? null;
}

/** A new secret, typed twice, with how easily it would be guessed by whoever knows the names `about` it. */
export function SecretFields({
  optional = false,
  about = [],
}: {
  readonly optional?: boolean;
  readonly about?: readonly string[];
}) {
  const schema = optional ? z.union([z.literal(''), newSecretSchema]) : newSecretSchema;
  const secret = Form.useWatch<string | undefined>('secret') ?? '';
  const measure = useMeasure();
  const [shown, setShown] = useState(false);
  const type = shown ? 'text' : 'password';
  const strength = measure === null || !newSecretSchema.safeParse(secret).success ? null : measure(secret, about);
  return (
    <>
      <FormField half name="secret" label="New PIN or passphrase" schema={schema}>
        <Input
          type={type}
          maxLength={200}
          autoComplete="new-password"
          spellCheck={false}
          placeholder="6 digits, or 12 letters"
        />
      </FormField>
      <FormField
        half
        name="again"
        label="Once more"
        schema={z.string().refine((again) => again === secret, 'is not the same')}
      >
        <Input type={type} maxLength={200} autoComplete="new-password" spellCheck={false} />
      </FormField>
      <div className={looks.wide}>
        <Checkbox checked={shown} onChange={({ target }) => setShown(target.checked)}>
          Show what I type
        </Checkbox>
        <span role="status" className={strength === 'guessed' ? looks.errorText : looks.quiet}>
          {strength === null ? '' : secretStrengthText[strength]}
        </span>
      </div>
    </>
  );
}
