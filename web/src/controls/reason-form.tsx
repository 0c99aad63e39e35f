import { useState, type ReactNode } from 'react';
import { Button, Input } from 'antd';
import { looks } from '../looks/looks.ts';
import styles from './reason-form.module.css';

/** A reason says nothing in fewer letters; the same as is taken by the server. */
const leastLetters = 3;

const intoView = (form: HTMLFormElement | null) => form?.scrollIntoView({ block: 'nearest' });

/** Asks why, in a few words, before something is left or passed; Escape in the empty field gives it up. */
export function ReasonForm({
  label,
  placeholder,
  act,
  onReason,
  onCancel,
  children,
}: {
  readonly label: string;
  readonly placeholder: string;
  /** What its button does. */
  readonly act: string;
  readonly onReason: (reason: string) => void;
  readonly onCancel: () => void;
  readonly children?: ReactNode;
}) {
  const [reason, setReason] = useState('');
  const [told, setTold] = useState(false);
  return (
    <form
      ref={intoView}
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault();
        const said = reason.trim();
        if (said.length < leastLetters) setTold(true);
        else onReason(said);
      }}
    >
      <Input
        autoFocus
        aria-label={label}
        placeholder={placeholder}
        maxLength={500}
        value={reason}
        onChange={(event) => {
          setReason(event.target.value);
          setTold(false);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Escape' && reason === '') onCancel();
        }}
      />
      <Button htmlType="submit">{act}</Button>
      {children}
      {told && (
        <span className={looks.errorText} role="alert">
          Say why, in a few words.
        </span>
      )}
    </form>
  );
}
