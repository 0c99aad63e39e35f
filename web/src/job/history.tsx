import { Button } from 'antd';
import { beside } from '../controls/beside.tsx';
import { looks } from '../looks/looks.ts';
import { useDesk } from './job-context.ts';
import { useDrawer } from './use-drawer.ts';
import { signs } from '../controls/signs.tsx';

const HistoryDrawer = beside(
  () => import('./history-drawer.tsx'),
  () => null,
);

/** The way to who did what to this job, and when. */
export function History() {
  const { code } = useDesk();
  const { show, drawer } = useDrawer(code);
  return (
    <>
      <Button icon={signs.history} type="link" className={looks.noPrint} aria-haspopup="dialog" onClick={show}>
        History
      </Button>
      {drawer !== null && <HistoryDrawer {...drawer} />}
    </>
  );
}
