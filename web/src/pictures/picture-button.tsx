import { Button, Upload } from 'antd';
import { signs } from '../controls/signs.tsx';

/** The camera, for one after the other, or files, several at once. */
export function PictureButton({
  label,
  camera = false,
  busy = false,
  disabled = false,
  onTaken,
}: {
  readonly label: string;
  readonly camera?: boolean;
  readonly busy?: boolean;
  readonly disabled?: boolean;
  readonly onTaken: (files: readonly File[]) => Promise<void>;
}) {
  return (
    <Upload
      accept="image/*"
      {...(camera ? { capture: 'environment' as const } : { multiple: true })}
      aria-label={label}
      showUploadList={false}
      disabled={disabled}
      beforeUpload={(file, all) => {
        if (file === all[0]) void onTaken(all);
        return false;
      }}
    >
      <Button icon={signs.picture} disabled={disabled}>
        {busy ? 'Keeping …' : label}
      </Button>
    </Upload>
  );
}
