import { useId, type ReactNode } from 'react';
import { Button, Checkbox, Form, Input, Select, type FormInstance } from 'antd';
import { looks } from '../looks/looks.ts';
import styles from './draft-form.module.css';
import { valueAt, type FieldPath } from './told-fields.ts';

type Name = string | readonly (string | number)[];
const nameOf = (name: Name) => (typeof name === 'string' ? name : [...name]);

/** What was wrong with a field is forgotten as soon as something else stands in it. */
function forgetMended<D>(form: FormInstance<D>, changed: unknown): void {
  const mended = form
    .getFieldsError()
    .filter(({ name, errors }) => errors.length > 0 && valueAt(changed, name as FieldPath) !== undefined);
  form.setFields(mended.map(({ name }) => ({ name: name as never, errors: [] })));
}

/**
 * A form that is read as a whole when it is sent: figures are text until then, so that nothing typed is lost or
 * guessed, and what is wrong stands at its field.
 */
export function DraftForm<D extends object>({
  form,
  initial,
  label,
  className = looks.fields,
  onSend,
  onTyped,
  children,
}: {
  readonly form: FormInstance<D>;
  readonly initial: D;
  readonly label?: string;
  readonly className?: string;
  /** Hears all that was typed, also in fields that are not shown just now. */
  readonly onSend: (draft: D) => void;
  /** Something else stands in a field. */
  readonly onTyped?: () => void;
  readonly children: ReactNode;
}) {
  return (
    <Form<D>
      form={form}
      name={useId()}
      aria-label={label}
      layout="vertical"
      requiredMark={false}
      className={`${styles['form']} ${className}`}
      initialValues={initial}
      validateTrigger="onSubmit"
      scrollToFirstError={{ focus: true }}
      onFinish={() => onSend(form.getFieldsValue(true) as D)}
      onValuesChange={(changed) => {
        forgetMended(form, changed);
        onTyped?.();
      }}
    >
      {children}
    </Form>
  );
}

export interface Place {
  readonly name: Name;
  readonly label: string;
  /** The label is told to assistive technology only: it stands at the head of a column. */
  readonly bare?: boolean;
}

/** What a field shares with all others: its name in the draft, its label, its error. */
export function DraftItem({
  name,
  label,
  bare = false,
  kind,
  children,
}: Place & { readonly kind?: 'checked'; readonly children: ReactNode }) {
  return (
    <Form.Item
      name={nameOf(name)}
      {...(bare ? {} : { label })}
      {...(kind === 'checked' ? { valuePropName: 'checked' } : {})}
    >
      {children}
    </Form.Item>
  );
}

/** Text, or a figure as it is typed. */
export function DraftText({
  name,
  label,
  unit,
  bare = false,
  figure = unit !== undefined,
  inputMode = figure ? 'decimal' : 'text',
  maxLength = 60,
  placeholder,
}: Place & {
  /** It is a figure in this unit. */
  readonly unit?: string;
  readonly figure?: boolean;
  /** The keys that a phone shows. */
  readonly inputMode?: 'text' | 'decimal' | 'numeric';
  readonly maxLength?: number;
  readonly placeholder?: string;
}) {
  const called = unit === undefined ? label : `${label} (${unit})`;
  const look = [figure ? looks.fig : '', bare ? looks.cellInput : ''].join(' ').trim();
  return (
    <DraftItem name={name} label={called} bare={bare}>
      <Input
        {...(bare ? { 'aria-label': called } : {})}
        className={look}
        inputMode={inputMode}
        maxLength={maxLength}
        placeholder={placeholder}
        autoComplete="off"
      />
    </DraftItem>
  );
}

export interface DraftOption {
  readonly value: string;
  readonly label: string;
  readonly disabled?: boolean;
}

/** One of some values, searched where there are many. */
export function DraftPick({
  name,
  label,
  bare = false,
  options,
}: Place & { readonly options: readonly DraftOption[] }) {
  return (
    <DraftItem name={name} label={label} bare={bare}>
      <Select
        aria-label={label}
        className={bare ? looks.cellInput : ''}
        popupMatchSelectWidth={!bare}
        options={[...options]}
        {...(options.length > 12 ? { showSearch: { optionFilterProp: 'label' } } : {})}
      />
    </DraftItem>
  );
}

/** Yes or no. */
export function DraftTick({ name, label }: Place) {
  return (
    <DraftItem name={name} label={label} bare kind="checked">
      <Checkbox className={looks.tick}>{label}</Checkbox>
    </DraftItem>
  );
}

/** What is wrong beside the fields. */
export const DraftTold = ({ text }: { readonly text: string | null }) =>
  text !== null && (
    <div className={`${looks.errorText} ${looks.wide}`} role="alert">
      {text}
    </div>
  );

/** What is wrong beside the fields, and the act that sends. */
export function DraftFoot({
  told,
  isSending,
  act = 'Save',
  children,
}: {
  readonly told: string | null;
  readonly isSending: boolean;
  readonly act?: string;
  readonly children?: ReactNode;
}) {
  return (
    <>
      <DraftTold text={told} />
      {children}
      <Button type="primary" className={`${looks.primary} ${looks.wide}`} htmlType="submit" disabled={isSending}>
        <span>{isSending ? 'Saving …' : act}</span>
        <kbd aria-hidden="true">↵</kbd>
      </Button>
    </>
  );
}
