import { useRef } from 'react';

const largestFile = 8 * 1024 * 1024;

/** A button that reads one file as text; a file that is too large is told instead of read. */
export function FileButton({
  label,
  name,
  busy = false,
  accept = 'application/json,.json',
  onText,
  onTooLarge,
}: {
  readonly accept?: string;
  readonly label: string;
  readonly name: string;
  readonly busy?: boolean;
  readonly onText: (text: string, name: string) => void;
  readonly onTooLarge: (told: string) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  async function read(file: File | undefined): Promise<void> {
    if (file === undefined) return;
    if (file.size > largestFile)
      onTooLarge(`${file.name} has ${Math.round(file.size / 1024 / 1024)} MB; at most 8 MB are read`);
    else onText(await file.text(), file.name);
  }
  return (
    <>
      <button type="button" className="secondary" disabled={busy} onClick={() => input.current?.click()}>
        {busy ? 'Importing …' : label}
      </button>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="hidden-file"
        tabIndex={-1}
        aria-label={name}
        onChange={(event) => {
          void read(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
    </>
  );
}
