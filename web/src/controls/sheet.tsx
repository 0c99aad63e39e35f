import { Suspense, type ReactNode } from 'react';
import { piece } from './beside.tsx';
import type { SheetProps } from './sheet-props.ts';
import { Waiting } from './waiting.tsx';

export type { SheetColumn } from './sheet-props.ts';

/** About as high as a row is, in pixels, so that what stands beneath a table does not move when it comes. */
const rowHeight = 37;

const { ask, Drawn } = piece<SheetProps<never>>(() => import('./sheet-table.tsx'));

/** Most pages have a table somewhere. */
export const askForTables = ask;

/** A table as this bench reads it: flat, every row in sight, and on a narrow screen scrolled inside its own frame. */
export function Sheet<T>(props: SheetProps<T>): ReactNode {
  return (
    <Suspense
      fallback={
        <div style={{ minHeight: (props.rows.length + 1) * rowHeight }}>
          <Waiting />
        </div>
      }
    >
      {/* The one component stands for a table of whatever rows. */}
      <Drawn {...(props as unknown as SheetProps<never>)} />
    </Suspense>
  );
}
