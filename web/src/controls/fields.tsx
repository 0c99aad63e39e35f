import { useEffect, useId, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { Button, Input, Select } from 'antd';
import { parseFigure, plainFigure } from '@fairwatt/core';
import { typing } from '../offline/typing.ts';
import { looks } from '../looks/looks.ts';
import styles from './fields.module.css';

interface Shared {
  readonly label: string;
  readonly wide?: boolean;
  readonly disabled?: boolean;
}

/** Text that is kept as it is typed. A value that may not be kept stays in the field with its error. */
export function TextField({
  label,
  value,
  onChange,
  problem,
  wide = false,
  rows,
  disabled = false,
  placeholder,
  maxLength,
  entry = false,
}: Shared & {
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly problem?: (value: string) => string | null;
  readonly rows?: number;
  readonly placeholder?: string;
  readonly maxLength?: number;
  readonly entry?: boolean;
}) {
  const id = useId();
  const [draft, setDraft] = useState<string | null>(null);
  const shown = draft ?? value;
  const error = draft === null ? null : (problem?.(draft) ?? null);
  const change = (text: string) => {
    if ((problem?.(text) ?? null) === null) {
      setDraft(null);
      onChange(text);
    } else setDraft(text);
  };
  const shared = {
    id,
    value: shown,
    disabled,
    maxLength,
    placeholder,
    'aria-labelledby': `${id}-name`,
    'aria-invalid': error !== null,
    'aria-describedby': error === null ? undefined : `${id}-error`,
    ...(entry ? { 'data-entry': true } : {}),
  };
  return (
    <label className={`${looks.field}${wide ? ` ${looks.wide}` : ''}`} htmlFor={id}>
      <span className={looks.name} id={`${id}-name`}>
        {label}
      </span>
      {rows === undefined ? (
        <Input {...shared} onChange={(event) => change(event.target.value)} autoComplete="off" />
      ) : (
        <Input.TextArea {...shared} rows={rows} onChange={(event) => change(event.target.value)} />
      )}
      {error !== null && (
        <span className={looks.error} id={`${id}-error`} role="alert">
          {error}
        </span>
      )}
    </label>
  );
}

/** What is wrong with a typed figure; null when it may be kept. */
export function figureProblem(
  text: string,
  least: number,
  most: number,
  empty: 'allowed' | 'refused',
  whole = false,
): string | null {
  if (text.trim() === '') return empty === 'allowed' ? null : `a figure from ${least} to ${most}`;
  const figure = parseFigure(text);
  if (figure === null) return `“${text}” is not a figure; write it like 11.9 or 11,9`;
  if (figure < least || figure > most) return `from ${least} to ${most}`;
  return whole && !Number.isInteger(figure) ? 'a whole number' : null;
}

/**
 * A figure is kept when its typing has paused this long, or the field is left: 99 on the way to 995 is not a figure.
 */
const pauseMilliseconds = 600;

interface FigureRule {
  readonly value: number | null;
  readonly onChange: (value: number | null) => void;
  readonly onProblem?: ((problem: string | null) => void) | undefined;
  readonly least: number;
  readonly most: number;
  readonly optional: boolean;
  readonly whole: boolean;
  readonly patient: boolean;
  readonly onEntered?: (() => void) | undefined;
}

/** What is typed into a figure's field until it is kept. */
function useFigureDraft({ value, onChange, onProblem, least, most, optional, whole, patient, onEntered }: FigureRule) {
  const id = useId();
  const [draft, setDraft] = useState<string | null>(null);
  const shown = draft ?? (value === null ? '' : plainFigure(Math.round(value * 1000) / 1000));
  const error = draft === null ? null : figureProblem(draft, least, most, optional ? 'allowed' : 'refused', whole);
  const tell = useRef(onProblem);
  useEffect(() => {
    tell.current = onProblem;
  });
  useEffect(() => {
    tell.current?.(error);
  }, [error]);
  const latest = useRef(onChange);
  useEffect(() => {
    latest.current = onChange;
  });
  const pending = useRef<{ timer: ReturnType<typeof setTimeout> | undefined; keep: () => void } | null>(null);
  const settle = () => {
    const now = pending.current;
    pending.current = null;
    if (now !== null) {
      clearTimeout(now.timer);
      now.keep();
    }
    typing.end(id);
  };
  const change = (text: string) => {
    setDraft(text);
    typing.begin(id);
    if (pending.current !== null) clearTimeout(pending.current.timer);
    pending.current = null;
    if (figureProblem(text, least, most, optional ? 'allowed' : 'refused', whole) === null)
      pending.current = {
        timer: patient ? undefined : setTimeout(settle, pauseMilliseconds),
        keep: () => latest.current(text.trim() === '' ? null : parseFigure(text)),
      };
  };
  // What was typed last is kept when the field goes away with its screen, or the page is closed.
  const settleNow = useRef(settle);
  useEffect(() => {
    settleNow.current = settle;
  });
  useEffect(() => {
    const leave = () => settleNow.current();
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, []);
  const enter = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key !== 'Enter') return;
    // What takes the field away may give the focus to a button, which the same press must not press too.
    if (patient) event.preventDefault();
    if (event.repeat) return;
    if (onEntered !== undefined && draft !== null && error === null) {
      settle();
      onEntered();
      return;
    }
    // With nothing to keep, Enter leaves the field, and the next one goes on.
    if (pending.current === null && error === null) event.currentTarget.blur();
    else settle();
  };
  const leave = () => {
    settle();
    if (error === null) setDraft(null);
  };
  return { id, shown, error, change, enter, leave };
}

interface FigureShape extends Shared {
  readonly value: number | null;
  readonly onChange: (value: number | null) => void;
  readonly onProblem?: (problem: string | null) => void;
  readonly least?: number;
  readonly most: number;
  readonly unit?: string;
  readonly optional?: boolean;
  readonly whole?: boolean;
  readonly bare?: boolean;
  /** Where one begins to type on its page. */
  readonly entry?: boolean;
  /** Kept only by Enter or by leaving it, however long somebody thinks: what is kept takes the field away. */
  readonly patient?: boolean;
  /** Goes on from here once Enter has kept what was typed; without it the field keeps the focus. */
  readonly onEntered?: () => void;
}

/**
 * A figure as people type it: 11,9 or 11.9. Kept when it is one and inside its bounds; else it stays in the field with
 * its error.
 */
export function FigureField({
  label,
  value,
  onChange,
  least = 0,
  most,
  unit,
  optional = false,
  whole = false,
  wide = false,
  disabled = false,
  bare = false,
  entry = false,
  patient = false,
  onProblem,
  onEntered,
}: FigureShape) {
  const rule = { value, onChange, onProblem, least, most, optional, whole, patient, onEntered };
  const { id, shown, error, change, enter, leave } = useFigureDraft(rule);
  const input = (
    <span className={styles.withUnit}>
      <Input
        {...(entry ? { 'data-entry': true } : {})}
        id={id}
        className={bare ? `${looks.cellInput} ${looks.fig}` : looks.fig}
        inputMode="decimal"
        autoComplete="off"
        value={shown}
        disabled={disabled}
        {...(bare ? { 'aria-label': label } : { 'aria-labelledby': `${id}-name` })}
        aria-invalid={error !== null}
        aria-describedby={error === null ? undefined : `${id}-error`}
        onChange={(event) => change(event.target.value)}
        onKeyDown={enter}
        onBlur={leave}
      />
      {unit !== undefined && (
        <span className={styles.unit} aria-hidden="true">
          {unit}
        </span>
      )}
    </span>
  );
  const told = error !== null && (
    <span className={looks.errorText} id={`${id}-error`} role="alert">
      {error}
    </span>
  );
  if (bare)
    return (
      <>
        {input}
        {told}
      </>
    );
  return (
    <label className={`${looks.field}${wide ? ` ${looks.wide}` : ''}`} htmlFor={id}>
      <span className={looks.name} id={`${id}-name`}>
        {label}
        {unit === undefined ? '' : ` (${unit})`}
      </span>
      {input}
      {told}
    </label>
  );
}

/** Longer lists than this are searched by typing. */
const searchFrom = 8;

/** One of several. An arrow on the closed list opens it and picks nothing. */
export function SelectField<T extends string>({
  label,
  value,
  options,
  onChange,
  wide = false,
  disabled = false,
  empty,
  bare = false,
}: Shared & {
  readonly value: T | null;
  readonly options: readonly { readonly value: T; readonly label: string }[];
  readonly onChange: (value: T) => void;
  readonly empty?: string;
  readonly bare?: boolean;
}) {
  const id = useId();
  const select = (
    <Select<T>
      id={id}
      aria-label={label}
      {...(bare ? { className: looks.cellInput } : {})}
      {...(value === null ? {} : { value })}
      placeholder={empty ?? 'pick one'}
      disabled={disabled}
      showSearch={options.length > searchFrom ? { optionFilterProp: 'label' } : false}
      popupMatchSelectWidth={false}
      onChange={onChange}
      options={[...options]}
    />
  );
  return bare ? (
    select
  ) : (
    <label className={`${looks.field}${wide ? ` ${looks.wide}` : ''}`} htmlFor={id}>
      <span className={looks.name}>{label}</span>
      {select}
    </label>
  );
}

/** Big keys, one to nine by the keyboard as well. */
export function Keys<T extends string>({
  label,
  value,
  options,
  onPick,
  disabled = false,
  digits = true,
}: {
  readonly label: string;
  readonly value?: T | null;
  readonly options: readonly {
    readonly value: T;
    readonly label: string;
    readonly hint?: string | undefined;
    readonly digit?: number;
  }[];
  readonly onPick: (value: T) => void;
  readonly disabled?: boolean;
  readonly digits?: boolean;
}) {
  return (
    <div className={looks.keys} role="group" aria-label={label}>
      {options.map((option, index) => {
        const digit = option.digit ?? index + 1;
        return (
          <Button
            type="text"
            className={looks.key}
            key={option.value}
            disabled={disabled}
            aria-pressed={value === undefined ? undefined : value === option.value}
            onClick={() => onPick(option.value)}
            {...(digits && digit <= 9 ? { 'data-key': String(digit) } : {})}
          >
            {digits && digit <= 9 && (
              <span className={looks.digit} aria-hidden="true">
                {digit}
              </span>
            )}
            <span>
              {option.label}
              {option.hint !== undefined && option.hint !== '' && <span className={styles.hint}>{option.hint}</span>}
            </span>
          </Button>
        );
      })}
    </div>
  );
}

/** The one obvious next step. Enter presses it. */
export function Primary({
  children,
  onClick,
  disabled = false,
}: {
  readonly children: ReactNode;
  readonly onClick: () => void;
  readonly disabled?: boolean;
}) {
  return (
    <Button type="primary" className={looks.primary} data-primary disabled={disabled} onClick={onClick}>
      <span>{children}</span>
      <kbd aria-hidden="true">↵</kbd>
    </Button>
  );
}
