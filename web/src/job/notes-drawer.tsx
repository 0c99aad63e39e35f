import { Drawer } from 'antd';
import { NotesAndPictures } from './notes-and-pictures.tsx';
import type { DrawerProps } from './use-drawer.ts';

/** Notes and pictures of the job beside what is worked at; what was begun stays there while it is shut. */
export default function NotesDrawer({ code, open, onClose }: DrawerProps) {
  return (
    <Drawer title={`Notes and pictures of ${code}`} size="min(640px, 100vw)" open={open} onClose={onClose}>
      <NotesAndPictures />
    </Drawer>
  );
}
