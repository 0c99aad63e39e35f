import { Grid, Table } from 'antd';
import { looks } from '../looks/looks.ts';
import type { SheetProps } from './sheet-props.ts';
import styles from './sheet-table.module.css';

interface Line<T> {
  readonly key: string | number;
  readonly row: T;
  readonly index: number;
  readonly drawnFrom: string | undefined;
}

const isOther = <T,>(line: Line<T>, before: Line<T>): boolean =>
  line.row !== before.row || line.index !== before.index || line.drawnFrom !== before.drawnFrom;

/** A table as this bench reads it: flat, every row in sight, and on a narrow screen scrolled inside its own frame. */
export default function SheetTable<T>({
  label,
  rows,
  rowKey,
  columns: wanted,
  rowProps,
  opened,
  empty = 'Nothing here yet.',
  className = '',
  drawnFrom,
}: SheetProps<T>) {
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
