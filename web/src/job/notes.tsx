import { Button } from 'antd';
import { usePhotosQuery } from '../app/api.ts';
import { beside } from '../controls/beside.tsx';
import { looks } from '../looks/looks.ts';
import { useDesk } from './job-context.ts';
import { useDrawer } from './use-drawer.ts';
import { signs } from '../controls/signs.tsx';

const NotesDrawer = beside(
  () => import('./notes-drawer.tsx'),
  () => null,
);

/** Notes and pictures of the job, to be had from every station. */
export function Notes() {
  const { job, code } = useDesk();
  const { data: photos = [] } = usePhotosQuery(code);
  const { show, drawer } = useDrawer(code);
  const count = job.notes.filter(({ photoId }) => photoId === null).length + photos.length;
  return (
    <>
      <Button icon={signs.notes} type="link" className={looks.noPrint} aria-haspopup="dialog" onClick={show}>
        {count === 0 ? 'Notes' : `Notes, ${count}`}
      </Button>
      {drawer !== null && <NotesDrawer {...drawer} />}
    </>
  );
}
