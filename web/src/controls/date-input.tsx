import { DatePicker } from 'antd';
import dayjs from 'dayjs';

/** A day as YYYY-MM-DD, empty for none; picked, or typed in one of the ways that days are written. */
export function DateInput({
  id,
  value = '',
  onChange,
  label,
  disabled = false,
}: {
  /** A form gives these three to its field. */
  readonly id?: string;
  readonly value?: string;
  readonly onChange?: (value: string) => void;
  readonly label: string;
  readonly disabled?: boolean;
}) {
  return (
    <DatePicker
      {...(id === undefined ? {} : { id })}
      aria-label={label}
      disabled={disabled}
      value={value === '' ? null : dayjs(value)}
      format={['D MMM YYYY', 'YYYY-MM-DD', 'D.M.YYYY', 'D/M/YYYY']}
      placeholder="4 Dec 2026"
      onChange={(day) => onChange?.(day === null ? '' : day.format('YYYY-MM-DD'))}
    />
  );
}
