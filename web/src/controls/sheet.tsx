import type { ReactNode, TdHTMLAttributes } from 'react';
import { Grid, Table } from 'antd';
import { looks } from '../looks/looks.ts';
import styles from './sheet.module.css';

/** One column: its head, and what stands in a row's cell. */
export interface SheetColumn<T> {
  readonly head?: ReactNode;
  readonly cell: (row: T, index: number) => ReactNode;
  /** `num` sets figures under each other, at the right. */
  readonly className?: string;
  readonly width?: number;
  /** It names the row. */
  readonly names?: boolean;
  readonly cellProps?: (row: T, index: number) => TdHTMLAttributes<HTMLTableCellElement>;
}

type RowProps = Readonly<Record<`data-${string}`, string | boolean | undefined>> & {
  readonly className?: string | undefined;
  readonly onFocus?: () => void;
};
interface Line<T> {
  readonly key: string | number;
  readonly row: T;
  readonly index: number;
  readonly drawnFrom: string | undefined;
}

const isOther = <T,>(line: Line<T>, before: Line<T>): boolean =>
  line.row !== before.row || line.index !== before.index || line.drawnFrom !== before.drawnFrom;

/** A table as this bench reads it: flat, every row in sight, and on a narrow screen scrolled inside its own frame. */
export function Sheet<T>({
  label,
  rows,
  rowKey,
  columns: wanted,
  rowProps,
  opened,
  empty = 'Nothing here yet.',
  className = '',
  drawnFrom,
}: {
  readonly label?: string;
  readonly rows: readonly T[];
  readonly rowKey: (row: T, index: number) => string | number;
  /** `false` for one that is not wanted now. */
  readonly columns: readonly (SheetColumn<T> | false)[];
  readonly rowProps?: (row: T, index: number) => RowProps;
  /** What stands beneath a row, over its whole width. */
  readonly opened?: (row: T) => ReactNode;
  /** What stands there where no row is. */
  readonly empty?: string;
  readonly className?: string;
  /**
   * What cells are drawn from beside their own row. Where it is said, a cell is drawn anew only when its row or this
   * has changed, so that typing in a long table draws one line; its handlers then have to be steady ones.
   */
  readonly drawnFrom?: string;
}) {
  const lines = rows.map((row, index) => ({ key: rowKey(row, index), row, index, drawnFrom }));
  const columns = wanted.filter((column) => column !== false);
  const wide = Grid.useBreakpoint().lg === true;
  return (
    <div className={styles.sheetFrame} tabIndex={wide ? undefined : 0}>
      <Table<Line<T>>
        className={`${looks.sheetTable} ${className}`}
        size="small"
        {...(label === undefined ? {} : { 'aria-label': label })}
        pagination={false}
        locale={{ emptyText: empty }}
        showHeader={columns.some((column) => column.head !== undefined)}
        dataSource={lines}
        {...(rowProps === undefined ? {} : { onRow: (line: Line<T>) => rowProps(line.row, line.index) as object })}
        {...(opened === undefined
          ? {}
          : {
              expandable: {
                showExpandColumn: false,
                expandedRowRender: (line: Line<T>) => opened(line.row),
                expandedRowKeys: lines.filter(({ row }) => Boolean(opened(row))).map(({ key }) => key),
              },
            })}
        columns={columns.map((column, position) => ({
          key: position,
          ...(drawnFrom === undefined ? {} : { shouldCellUpdate: isOther<T> }),
          title: column.head,
          ...(column.className === undefined ? {} : { className: column.className }),
          ...(column.width === undefined ? {} : { width: column.width }),
          ...(column.names === true ? { rowScope: 'row' as const } : {}),
          ...(column.cellProps === undefined
            ? {}
            : { onCell: ({ row, index }: Line<T>) => column.cellProps?.(row, index) ?? {} }),
          render: (_: unknown, { row, index }: Line<T>) => column.cell(row, index),
        }))}
      />
    </div>
  );
}
