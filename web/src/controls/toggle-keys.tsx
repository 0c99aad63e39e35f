import { Button } from 'antd';
import { looks } from '../looks/looks.ts';

/** Keys of which any number may be down. */
export function ToggleKeys<T extends string>({
  label,
  values,
  options,
  onChange,
  disabled = false,
  atLeastOne = false,
}: {
  readonly label: string;
  readonly values: readonly T[];
  readonly options: readonly { readonly value: T; readonly label: string }[];
  readonly onChange: (values: readonly T[]) => void;
  readonly disabled?: boolean;
  readonly atLeastOne?: boolean;
}) {
  return (
    <div className={looks.keys} role="group" aria-label={label}>
      {options.map((option) => {
        const on = values.includes(option.value);
        return (
          <Button
            type="text"
            className={looks.key}
            key={option.value}
            aria-pressed={on}
            disabled={disabled || (atLeastOne && on && values.length === 1)}
            onClick={() => onChange(on ? values.filter((other) => other !== option.value) : [...values, option.value])}
          >
            {option.label}
          </Button>
        );
      })}
    </div>
  );
}
