import { Button, Progress } from 'antd';
import { Empty } from '../../controls/empty.tsx';
import { Waiting } from '../../controls/waiting.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import styles from './replacement.module.css';

/** How far the judging is, with what ends it; its share is told once it takes noticeably long. */
function Share({ share }: { readonly share: number }) {
  const { judging } = useDesk();
  if (share === 0) return null;
  return (
    <>
      <Progress
        className={styles.share ?? ''}
        aria-label="Supplies judged"
        percent={Math.round(share * 100)}
        size="small"
        status="normal"
      />
      <Button size="small" onClick={judging.stop}>
        Stop judging
      </Button>
    </>
  );
}

/** Beside a list that is there: that it is being judged again, or that it answers an earlier question. */
export function JudgingNote() {
  const { judging } = useDesk();
  if (judging.share !== null)
    return (
      <span className={`${looks.quiet} ${styles.judging ?? ''}`}>
        <span role="status">· judging again</span>
        <Share share={judging.share} />
      </span>
    );
  if (!judging.stopped) return null;
  return (
    <span className={styles.judging ?? ''}>
      <span role="status">
        · <strong>judging was stopped:</strong> this list answers what was asked before the last change.
      </span>
      <Button size="small" onClick={judging.again}>
        Judge them now
      </Button>
    </span>
  );
}

/** In place of a list that is not there yet. */
export function NoneJudged() {
  const { judging, shop } = useDesk();
  if (judging.share !== null)
    return (
      <>
        <Waiting>Judging {shop.supplies.length} supplies …</Waiting>
        <Share share={judging.share} />
      </>
    );
  if (judging.stopped)
    return (
      <Empty title="Judging was stopped">
        None of the {shop.supplies.length} supplies is ranked.{' '}
        <Button size="small" onClick={judging.again}>
          Judge them now
        </Button>
      </Empty>
    );
  return (
    <Empty title={judging.failed ? 'The supplies could not be judged' : 'No supplies in this shop'}>
      {judging.failed ? 'Reload the page; nothing is lost.' : 'Enter or import some under Supplies.'}
    </Empty>
  );
}
