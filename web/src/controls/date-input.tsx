import { DatePicker } from 'antd';
import dayjs from 'dayjs';

/** A day as YYYY-MM-DD, empty for none; typed or picked. */
export function DateInput({
  value,
  onChange,
  label,
  disabled = false,
}: {
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly label: string;
  readonly disabled?: boolean;
}) {
  return (
    <DatePicker
      aria-label={label}
      disabled={disabled}
      value={value === '' ? null : dayjs(value)}
      format={['YYYY-MM-DD', 'D.M.YYYY', 'D MMM YYYY']}
      placeholder="YYYY-MM-DD"
      onChange={(day) => onChange(day === null ? '' : day.format('YYYY-MM-DD'))}
    />
  );
}
