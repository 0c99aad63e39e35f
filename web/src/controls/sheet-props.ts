import type { ReactNode, TdHTMLAttributes } from 'react';

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

export type RowProps = Readonly<Record<`data-${string}`, string | boolean | undefined>> & {
  readonly className?: string | undefined;
  readonly onFocus?: () => void;
};

/** A table as it is asked for. */
export interface SheetProps<T> {
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
}
