import { Button, Popconfirm } from 'antd';
import { signs } from './signs.tsx';

/** Removes something that cannot be had back by an undo: it asks first, where it stands. */
export function RemoveButton({
  what,
  text,
  disabled = false,
  onRemove,
}: {
  /** What goes, as the question names it. */
  readonly what: string;
  readonly text: string;
  readonly disabled?: boolean;
  readonly onRemove: () => void;
}) {
  return (
    <Popconfirm
      title={`Remove ${what}?`}
      okText="Remove it"
      cancelText="Keep it"
      disabled={disabled}
      onConfirm={onRemove}
    >
      <Button icon={signs.remove} type="link" disabled={disabled} aria-label={`${text}: ${what}`}>
        {text}
      </Button>
    </Popconfirm>
  );
}
