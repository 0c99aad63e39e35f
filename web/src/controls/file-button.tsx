import { Button, Upload } from 'antd';
import { signs } from './signs.tsx';

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
  async function read(file: File): Promise<void> {
    if (file.size > largestFile)
      onTooLarge(`${file.name} has ${Math.round(file.size / 1024 / 1024)} MB; at most 8 MB are read`);
    else onText(await file.text(), file.name);
  }
  return (
    <Upload
      accept={accept}
      aria-label={name}
      showUploadList={false}
      disabled={busy}
      beforeUpload={(file) => {
        void read(file);
        return false;
      }}
    >
      <Button icon={signs.file} disabled={busy}>
        {busy ? 'Importing …' : label}
      </Button>
    </Upload>
  );
}
