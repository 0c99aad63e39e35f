import { useState } from 'react';
import { Button } from 'antd';
import type { Shape } from '@fairwatt/core';
import { beside } from '../../controls/beside.tsx';
import { useDesk } from '../../job/job-context.ts';
import { signs } from '../../controls/signs.tsx';

const LabelReader = beside(
  () => import('./label-reader.tsx'),
  () => null,
);

/** Takes the supply's figures from a picture of its label. */
export function FromLabelPicture({ fits }: { readonly fits: (shape: Shape) => void }) {
  const { locked } = useDesk();
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button icon={signs.picture} disabled={locked} aria-haspopup="dialog" onClick={() => setOpen(true)}>
        From a picture of its label
      </Button>
      {open && <LabelReader fits={fits} onDone={() => setOpen(false)} />}
    </>
  );
}
