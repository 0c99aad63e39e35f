import { useState } from 'react';

/** What a drawer of a job's page is drawn with. */
export interface DrawerProps {
  readonly code: string;
  readonly open: boolean;
  readonly onClose: () => void;
}

/** A drawer that is there from the first time on that it is asked for; null before. */
export function useDrawer(code: string): { readonly show: () => void; readonly drawer: DrawerProps | null } {
  const [open, setOpen] = useState<boolean | null>(null);
  return {
    show: () => setOpen(true),
    drawer: open === null ? null : { code, open, onClose: () => setOpen(false) },
  };
}
