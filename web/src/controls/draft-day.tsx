import { DateInput } from './date-input.tsx';
import { DraftItem, type Place } from './draft-form.tsx';

/** A day, empty for none. Apart from the other fields, since the calendar is large and few forms have one. */
export function DraftDay({ name, label }: Place) {
  return (
    <DraftItem name={name} label={label}>
      <DateInput label={label} />
    </DraftItem>
  );
}
