import { FigureField } from './fields.tsx';

/** A figure that is always set: a field that was emptied changes nothing. */
export function SetFigureField({
  onChange,
  ...field
}: Omit<Parameters<typeof FigureField>[0], 'value' | 'onChange' | 'optional'> & {
  readonly value: number;
  readonly onChange: (value: number) => void;
}) {
  return (
    <FigureField
      {...field}
      onChange={(value) => {
        if (value !== null) onChange(value);
      }}
    />
  );
}
