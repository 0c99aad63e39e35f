import type { ReactNode } from 'react';
import { looks } from '../looks/looks.ts';

/** What goes here, and the first step. */
export function Empty({ title, children }: { readonly title: string; readonly children?: ReactNode }) {
  return (
    <div className={looks.empty}>
      <strong>{title}</strong>
      {children}
    </div>
  );
}
