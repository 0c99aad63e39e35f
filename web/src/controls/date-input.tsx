import { Input } from 'antd';
import { beside } from './beside.tsx';

export interface DateInputProps {
  /** A form gives these three to its field. */
  readonly id?: string;
  readonly value?: string;
  readonly onChange?: (value: string) => void;
  readonly label: string;
  readonly disabled?: boolean;
}

/** A day as YYYY-MM-DD, empty for none. The calendar is large, and comes with the first field that has one. */
export const DateInput = beside<DateInputProps>(
  () => import('./calendar.tsx'),
  () => (
    <span data-waiting>
      <Input disabled aria-hidden />
    </span>
  ),
);
