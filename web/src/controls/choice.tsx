import type { ReactNode } from 'react';
import { Segmented } from 'antd';
import styles from './choice.module.css';

/** One of a few that all stand in sight: a way of looking, a state, a condition. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onPick,
  disabled = false,
}: {
  readonly label: string;
  readonly value: T;
  readonly options: readonly { readonly value: T; readonly label: ReactNode }[];
  readonly onPick: (value: T) => void;
  readonly disabled?: boolean;
}) {
  return (
    <Segmented<T>
      className={styles.choice}
      aria-label={label}
      value={value}
      disabled={disabled}
      options={options.map((option) => ({ value: option.value, label: option.label }))}
      onChange={onPick}
    />
  );
}
