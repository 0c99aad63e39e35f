import { DatePicker } from 'antd';
import dayjs from 'dayjs';
import type { DateInputProps } from './date-input.tsx';

/** A day that is picked, or typed in one of the ways that days are written. */
export default function Calendar({ id, value = '', onChange, label, disabled = false }: DateInputProps) {
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
