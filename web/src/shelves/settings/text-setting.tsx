import { useState } from 'react';
import { Input } from 'antd';
import { looks } from '../../looks/looks.ts';

/** Text that is saved when the field is left or Enter pressed, not at every letter. */
export function TextSetting({
  label,
  value,
  maxLength,
  disabled,
  problem,
  onSave,
  wide = false,
}: {
  readonly label: string;
  readonly value: string;
  readonly maxLength: number;
  readonly disabled: boolean;
  readonly problem: (value: string) => string | null;
  readonly onSave: (value: string) => void;
  readonly wide?: boolean;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const error = draft === null ? null : problem(draft);
  const keep = () => {
    if (draft === null || error !== null) return;
    if (draft !== value) onSave(draft);
    setDraft(null);
  };
  return (
    <label className={`${looks.field}${wide ? ` ${looks.wide}` : ''}`}>
      <span className={looks.name}>{label}</span>
      <Input
        value={draft ?? value}
        maxLength={maxLength}
        disabled={disabled}
        aria-invalid={error !== null}
        autoComplete="off"
        onChange={(event) => setDraft(event.target.value)}
        onBlur={keep}
        onKeyDown={(event) => {
          if (event.key === 'Enter') keep();
        }}
      />
      {error !== null && (
        <span className={looks.error} role="alert">
          {error}
        </span>
      )}
    </label>
  );
}
