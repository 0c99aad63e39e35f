import type { ReactNode } from 'react';
import { looks } from '../looks/looks.ts';

/** Something is still being fetched; said to eyes and to assistive technology. */
export function Waiting({
  children = 'Loading …',
  className = '',
}: {
  readonly children?: ReactNode;
  readonly className?: string;
}) {
  return (
    <div className={`${className} ${looks.quiet}`} role="status" data-waiting>
      {children}
    </div>
  );
}
