import { Input, Select } from 'antd';
import { faceOfPlug, socketsToRecord, type CableKit, type RecordedCable } from '@fairwatt/core';
import { looks } from '../../looks/looks.ts';

/**
 * The socket of a recorded cable, or both of one with two ends at the supply: out of the supply's own where the shop's
 * list has it, those that do not take such a cable barred; in words where nobody knows them.
 */
export function SocketField({
  cable,
  kit,
  invalid,
  disabled,
  onPut,
}: {
  readonly cable: RecordedCable;
  readonly kit: CableKit | null;
  readonly invalid: boolean;
  readonly disabled: boolean;
  readonly onPut: (socketLabel: string) => void;
}) {
  const label = `Socket of cable ${cable.label}`;
  if (kit === null || kit.sockets.length === 0)
    return (
      <Input
        className={looks.cellInput}
        aria-invalid={invalid}
        aria-label={label}
        placeholder="fixed"
        value={cable.socketLabel}
        maxLength={60}
        disabled={disabled}
        onChange={(event) => onPut(event.target.value)}
      />
    );
  const taking = socketsToRecord(
    kit,
    cable.plugs.map(({ kind }) => faceOfPlug[kind]),
  );
  const known = kit.sockets.map((socket) => socket.label);
  const shown = [...known, ...taking.filter((name) => !known.includes(name))];
  const wrong = cable.socketLabel !== '' && !taking.includes(cable.socketLabel);
  return (
    <>
      <Select
        className={looks.cellInput}
        aria-label={label}
        aria-invalid={invalid || wrong}
        value={cable.socketLabel}
        disabled={disabled}
        popupMatchSelectWidth={false}
        onChange={onPut}
        options={[
          { value: '', label: 'fixed' },
          ...(shown.includes(cable.socketLabel) || cable.socketLabel === ''
            ? []
            : [{ value: cable.socketLabel, label: cable.socketLabel }]),
          ...shown.map((value) => ({
            value,
            label: taking.includes(value) ? value : `${value}: takes no such cable`,
            disabled: !taking.includes(value),
          })),
        ]}
      />
      {wrong && (
        <span className={looks.errorText} role="status">
          {known.includes(cable.socketLabel) ? 'takes no such cable' : 'this supply has no such socket'}
        </span>
      )}
    </>
  );
}
