import { DatePicker } from 'antd';
import dayjs from 'dayjs';

/** A day as YYYY-MM-DD, empty for none; typed or picked. */
export function DateInput({
  value,
  onChange,
  label,
}: {
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly label: string;
}) {
  return (
    <DatePicker
      aria-label={label}
      value={value === '' ? null : dayjs(value)}
      format={['YYYY-MM-DD', 'D.M.YYYY', 'D MMM YYYY']}
      placeholder="YYYY-MM-DD"
      onChange={(day) => onChange(day === null ? '' : day.format('YYYY-MM-DD'))}
    />
  );
}
