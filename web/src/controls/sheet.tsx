import type { ReactNode, TdHTMLAttributes } from 'react';
import { Grid, Table } from 'antd';

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

type RowProps = Readonly<Record<`data-${string}`, string | boolean | undefined>> & { readonly className?: string };
interface Line<T> {
  readonly key: string | number;
  readonly row: T;
  readonly index: number;
}

/** A table as this bench reads it: flat, every row in sight, and on a narrow screen scrolled inside its own frame. */
export function Sheet<T>({
  label,
  rows,
  rowKey,
  columns,
  rowProps,
  className = '',
}: {
  readonly label?: string;
  readonly rows: readonly T[];
  readonly rowKey: (row: T, index: number) => string | number;
  readonly columns: readonly SheetColumn<T>[];
  readonly rowProps?: (row: T, index: number) => RowProps;
  readonly className?: string;
}) {
  const wide = Grid.useBreakpoint().lg === true;
  return (
    <div className="sheet-frame" tabIndex={wide ? undefined : 0}>
      <Table<Line<T>>
        className={`sheet-table ${className}`}
        size="small"
        {...(label === undefined ? {} : { 'aria-label': label })}
        pagination={false}
        showHeader={columns.some((column) => column.head !== undefined)}
        dataSource={rows.map((row, index) => ({ key: rowKey(row, index), row, index }))}
        {...(rowProps === undefined ? {} : { onRow: (line: Line<T>) => rowProps(line.row, line.index) as object })}
        columns={columns.map((column, position) => ({
          key: position,
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
