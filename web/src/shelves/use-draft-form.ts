import { useState } from 'react';
import { Form } from 'antd';
import type { z } from 'zod';
import { problemOf } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { stepsOf, toldAtFields, type FieldPath, type Finding } from '../controls/told-fields.ts';

interface Drafting<D, T> {
  readonly schema: z.ZodType<T>;
  /** What was typed, for the schema to read; what is no figure is left as it was typed. */
  readonly typed: (draft: D) => unknown;
  /** Where on the form a path of what is sent stands, where that is another. */
  readonly fieldOf?: (path: FieldPath, draft: D) => FieldPath;
  /** What is told of a path of what is sent, where its place alone does not say enough. */
  readonly wordsOf?: (path: FieldPath, message: string) => string;
  /** Sends it, with the state that was seen; null for a new one. */
  readonly send: (value: T, seen: T | null, by: string) => Promise<{ readonly error?: unknown }>;
  readonly onDone: () => void;
}

/** What the server says of paths stands below the name that the thing has in the message. */
const withoutThing = (path: string): FieldPath => stepsOf(path).slice(1);
const count = (things: number) => `${things} ${things === 1 ? 'thing is' : 'things are'} to mend`;

/**
 * A form whose draft is sent once its schema reads it. What is wrong, for the schema or for the server, is told at its
 * field; where somebody else has changed the thing meanwhile, the own state is kept as a conflict.
 */
export function useDraftForm<D extends object, T>({ schema, typed, fieldOf, wordsOf, send, onDone }: Drafting<D, T>) {
  const technician = useAppSelector((state) => state.session.technician);
  const [form] = Form.useForm<D>();
  const [told, setTold] = useState<string | null>(null);
  const [conflict, setConflict] = useState<T | null>(null);
  const [isSending, setSending] = useState(false);

  /** @returns what belongs to no field */
  function tell(findings: readonly Finding[], draft: D): readonly string[] {
    const shown = form.getFieldsError();
    const placed = findings.map(({ path, message }) => ({
      path: fieldOf?.(path, draft) ?? path,
      message: wordsOf?.(path, message) ?? message,
    }));
    const { fields, rest } = toldAtFields(
      placed,
      shown.map(({ name }) => name),
    );
    form.setFields([
      ...shown.map(({ name }) => ({ name: name as never, errors: [] })),
      ...fields.map(({ name, errors }) => ({ name: name as never, errors: [...errors] })),
    ]);
    if (fields[0] !== undefined) form.scrollToField([...fields[0].name] as never, { block: 'nearest', focus: true });
    return rest;
  }

  async function put(value: T, seen: T | null): Promise<void> {
    setSending(true);
    const { error } = await send(value, seen, technician ?? '');
    setSending(false);
    if (error === undefined) {
      onDone();
      return;
    }
    const problem = problemOf(error);
    if (problem.type === '/problems/stale') setConflict(value);
    const findings = (problem.errors ?? []).map(({ path, message }) => ({ path: withoutThing(path), message }));
    const rest = tell(findings, form.getFieldsValue(true) as D);
    setTold(technician === null ? 'Pick your name at the top right first.' : [problem.title, ...rest].join('. '));
  }

  async function save(draft: D, seen: T | null): Promise<void> {
    const read = schema.safeParse(typed(draft));
    const findings = read.success ? [] : read.error.issues;
    const rest = tell(
      findings.map(({ path, message }) => ({ path: path as FieldPath, message })),
      draft,
    );
    setTold(read.success ? null : [`${count(findings.length)}.`, ...rest].join(' '));
    if (read.success) await put(read.data, seen);
  }
  return { form, told, setTold, conflict, isSending, put, save };
}
