import type { ReactNode } from 'react';
import { looks } from '../looks/looks.ts';
import styles from './access.module.css';

/** A screen before the application: the house, what is asked, and one form. */
export function WayIn({
  shop,
  title,
  say,
  children,
}: {
  readonly shop: string;
  readonly title: string;
  readonly say: string;
  readonly children: ReactNode;
}) {
  return (
    <main className={styles['wayIn']} id="main">
      <section className={styles['card']} aria-label={title}>
        <p className={styles['house']}>
          <svg width="22" height="18" viewBox="0 0 22 18" aria-hidden="true">
            <path d="M0 16h22M4 16V9h4v7M14 16V9h4v7M11 8V1" fill="none" stroke="currentColor" strokeWidth="3" />
          </svg>
          Fair Watt · {shop}
        </p>
        <h1>{title}</h1>
        <p className={looks.quiet}>{say}</p>
        {children}
      </section>
    </main>
  );
}
