import { useState, type ReactNode } from 'react';
import { Button, Form, type FormInstance } from 'antd';
import type { z } from 'zod';
import type { Problem } from '@fairwatt/contract';
import { looks } from '../looks/looks.ts';
import { DraftForm, DraftTold } from './draft-form.tsx';
import styles from './form.module.css';
import { alone, stepsOf, toldAtFields } from './told-fields.ts';

type Values = Record<string, unknown>;

/** What is wrong with a value by a schema, in the schema's own words; null for nothing. */
export function mistake(schema: z.ZodType, value: unknown): string | null {
  const result = schema.safeParse(value);
  return result.success ? null : alone(result.error.issues[0]?.message ?? 'is not valid');
}

/** Puts what a problem says of fields to those fields. @returns what belongs to none of them; null for nothing */
function tellAtFields<T extends Values>(form: FormInstance<T>, problem: Problem): string | null {
  const findings = (problem.errors ?? []).map(({ path, message }) => ({ path: stepsOf(path), message }));
  const { fields, rest } = toldAtFields(
    findings,
    Object.keys(form.getFieldsValue(true) as Values).map((name) => [name]),
  );
  form.setFields(fields.map(({ name, errors }) => ({ name: name[0] as never, errors: [...errors] })));
  const first = fields[0]?.name[0];
  if (first === undefined) return problem.title;
  form.focusField(first);
  return rest.length === 0 ? null : problem.title;
}

/**
 * A form: each field is held to a schema when it is sent, and again forgets what was wrong as soon as it is typed in;
 * what the server says of a field stands at that field. Nothing typed is lost by an answer.
 */
export function SheetForm<T extends Values>({
  initial,
  act,
  busy,
  done = false,
  form: given,
  onSend,
  children,
}: {
  readonly initial: T;
  /** The words of the main act. */
  readonly act: ReactNode;
  readonly busy: boolean;
  /** Nothing more is sent. */
  readonly done?: boolean;
  readonly form?: FormInstance<T>;
  /** Sends it; answers with a problem, some words, or null when it is done. */
  readonly onSend: (values: T) => Promise<Problem | string | null>;
  readonly children: ReactNode;
}) {
  const [form] = Form.useForm<T>(given);
  const [told, setTold] = useState<string | null>(null);
  async function send(values: T): Promise<void> {
    setTold(null);
    const answer = await onSend(values);
    setTold(answer === null || typeof answer === 'string' ? answer : tellAtFields(form, answer));
  }
  return (
    <DraftForm
      form={form}
      initial={initial}
      className={styles['form'] ?? ''}
      onSend={(values) => void send(values)}
      onTyped={() => setTold(null)}
    >
      {children}
      <DraftTold text={told} />
      <Button
        type="primary"
        className={`${looks.primary} ${looks.wide}`}
        htmlType="submit"
        loading={busy}
        disabled={done}
      >
        <span>{act}</span>
        <kbd aria-hidden="true">↵</kbd>
      </Button>
    </DraftForm>
  );
}

/** One field of a form, held to a schema; half as wide as the form where two stand side by side. */
export function FormField({
  name,
  label,
  schema,
  half = false,
  children,
}: {
  readonly name: string;
  readonly label: string;
  readonly schema?: z.ZodType;
  readonly half?: boolean;
  readonly children: ReactNode;
}) {
  const rules =
    schema === undefined
      ? []
      : [
          {
            validator: (_rule: unknown, value: unknown) => {
              const wrong = mistake(schema, value);
              return wrong === null ? Promise.resolve() : Promise.reject(new Error(wrong));
            },
          },
        ];
  return (
    <Form.Item name={name} label={label} rules={rules} className={half ? '' : looks.wide}>
      {children}
    </Form.Item>
  );
}
