import type { ReactNode } from 'react';
import { Button } from 'antd';
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary';
import { useLocation } from 'react-router';
import { unsentFile } from '../offline/unsent-file.ts';
import { looks } from '../looks/looks.ts';
import { isPieceMissing } from './chunks.ts';
import { download } from './download.ts';
import { useAppSelector } from './store.ts';
import { signs } from '../controls/signs.tsx';
import styles from './trouble.module.css';

/** What is told where a screen broke. Everything typed before is kept, and can be had as a file. */
function Broken({ error, resetErrorBoundary }: FallbackProps) {
  const parcels = useAppSelector((state) => state.outbox.parcels);
  const needsPage = isPieceMissing(error);
  return (
    <section className={`${looks.page} ${styles.trouble}`} role="alert">
      <h1>This screen has failed</h1>
      <p>The rest still works, and what was typed before is kept{parcels.length > 0 ? ' in this browser' : ''}.</p>
      {needsPage && <p>A piece of the application did not come from the server; it comes with the page.</p>}
      <p className={looks.quiet}>{error instanceof Error ? error.message : String(error)}</p>
      <div className={looks.rowActions}>
        {!needsPage && (
          <Button icon={signs.again} type="primary" onClick={resetErrorBoundary}>
            Try again
          </Button>
        )}
        <Button icon={signs.again} type={needsPage ? 'primary' : 'default'} onClick={() => location.reload()}>
          Load the page again
        </Button>
        <Button
          icon={signs.save}
          disabled={parcels.length === 0}
          onClick={() => void unsentFile(parcels).then((blob) => download(blob, 'fairwatt-unsent.json'))}
        >
          Save what is unsent
        </Button>
      </div>
    </section>
  );
}

/** Keeps what breaks inside it from taking the rest along; another address tries anew by itself. */
export function Guarded({ children }: { readonly children: ReactNode }) {
  const { pathname } = useLocation();
  return (
    <ErrorBoundary FallbackComponent={Broken} resetKeys={[pathname]}>
      {children}
    </ErrorBoundary>
  );
}
