import { useState } from 'react';
import { Button } from 'antd';
import { beside } from '../../controls/beside.tsx';
import { useDesk } from '../../job/job-context.ts';
import { signs } from '../../controls/signs.tsx';

const Listings = beside(
  () => import('./listings.tsx'),
  () => null,
);

/** Takes the parts from what the machine itself lists. */
export function FromListing() {
  const { locked } = useDesk();
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button icon={signs.file} disabled={locked} aria-haspopup="dialog" onClick={() => setOpen(true)}>
        From its own listings
      </Button>
      {open && <Listings onDone={() => setOpen(false)} />}
    </>
  );
}
