import type { ReactNode } from 'react';
import { beside } from './beside.tsx';
import type { SheetProps } from './sheet-props.ts';
import { Waiting } from './waiting.tsx';

export type { SheetColumn } from './sheet-props.ts';

/** About as high as a row is, in pixels, so that what stands beneath a table does not move when it comes. */
const rowHeight = 37;

const TableBeside = beside<SheetProps<never>>(
  async () => (await import('./sheet-table.tsx')).SheetTable,
  ({ rows }) => (
    <div style={{ minHeight: (rows.length + 1) * rowHeight }}>
      <Waiting />
    </div>
  ),
);

/** A table as this bench reads it: flat, every row in sight, and on a narrow screen scrolled inside its own frame. */
export function Sheet<T>(props: SheetProps<T>): ReactNode {
  return <TableBeside {...(props as unknown as SheetProps<never>)} />;
}
