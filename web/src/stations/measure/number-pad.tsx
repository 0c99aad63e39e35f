/** Big keys for gloves; each adds to what stands in the field. */
const rows = [
  ['12 ', '5 ', '3.3 ', '-12 ', 'sb ', 'pg '],
  ['7', '8', '9', 'HH ', 'LL ', 'absent '],
  ['4', '5', '6', '-', 'wanders ', 'idle '],
  ['1', '2', '3', '.', '0', 'work '],
] as const;

export function NumberPad({
  onKey,
  onBack,
  onKeep,
  disabled,
}: {
  readonly onKey: (text: string) => void;
  readonly onBack: () => void;
  readonly onKeep: () => void;
  readonly disabled: boolean;
}) {
  return (
    <div className="pad" role="group" aria-label="Keys for gloves">
      {rows.flatMap((row, index) =>
        row.map((text) => (
          <button
            key={`${index}${text}`}
            type="button"
            className={index === 0 ? 'rail' : ''}
            disabled={disabled}
            onClick={() => onKey(text)}
          >
            {index === 0 ? `${text.trim()}:` : text.trim()}
          </button>
        )),
      )}
      <button type="button" className="wide" disabled={disabled} onClick={onBack}>
        back
      </button>
      <button type="button" className="wide keep" disabled={disabled} onClick={onKeep}>
        Keep
      </button>
    </div>
  );
}
