import { Button, Select } from 'antd';
import {
  figureText,
  railNames,
  timeFormats,
  timeFormatText,
  type LogColumn,
  type LogMapping,
  type LogSummary,
} from '@fairwatt/core';
import type { Look, Separator } from '../../workers/log-worker.ts';
import { Sheet } from '../../controls/sheet.tsx';
import { looks } from '../../looks/looks.ts';
import { signs } from '../../controls/signs.tsx';
import styles from './log-mapping.module.css';
import walkHead from './walk-head.module.css';

/** Where the reading of a file stands. */
export type State =
  | { readonly at: 'none'; readonly told: string | null }
  | {
      readonly at: 'looked';
      readonly file: File;
      readonly look: Extract<Look, { ok: true }>;
      readonly mapping: LogMapping;
      readonly told: string | null;
    }
  | { readonly at: 'reading'; readonly file: File; readonly share: number; readonly rows: number }
  | { readonly at: 'read'; readonly file: File; readonly summary: LogSummary };

const separators: readonly (readonly [Separator, string])[] = [
  [',', 'comma'],
  [';', 'semicolon'],
  ['\t', 'tab'],
  ['|', 'bar'],
  [' ', 'space'],
];
/** What a column may hold, as the list offers it. */
const columnOptions = [
  { value: 'nothing', label: 'nothing to use' },
  ...timeFormats.map((format) => ({ value: `time|${format}`, label: `time: ${timeFormatText[format]}` })),
  ...railNames.flatMap((rail) =>
    (['V', 'mV'] as const).map((unit) => ({
      value: `rail|${rail}|${unit}`,
      label: `${rail === '+5sb' ? '+5 standby' : rail} in ${unit}`,
    })),
  ),
  { value: 'load|A', label: 'current in A' },
  { value: 'load|mA', label: 'current in mA' },
];

/** A column as its list of meanings writes it, and back. */
const valueOf = (item: LogColumn) =>
  item.holds === 'time'
    ? `time|${item.format}`
    : item.holds === 'rail'
      ? `rail|${item.rail}|${item.unit}`
      : item.holds === 'load'
        ? `load|${item.unit}`
        : 'nothing';
const columnOf = (value: string): LogColumn => {
  const [holds, a, b] = value.split('|');
  return holds === 'time'
    ? { holds: 'time', format: timeFormats.find((format) => format === a) ?? 'iso' }
    : holds === 'rail'
      ? { holds: 'rail', rail: railNames.find((rail) => rail === a) ?? '+12', unit: b === 'mV' ? 'mV' : 'V' }
      : holds === 'load'
        ? { holds: 'load', unit: a === 'mA' ? 'mA' : 'A' }
        : { holds: 'nothing' };
};

/** How the file is divided and written. */
function FileShape({
  look,
  mapping,
  onSeparator,
  onMapping,
}: {
  readonly look: Extract<State, { at: 'looked' }>['look'];
  readonly mapping: LogMapping;
  readonly onSeparator: (separator: Separator) => void;
  readonly onMapping: (mapping: LogMapping) => void;
}) {
  return (
    <>
      <label className={looks.field}>
        <span className={looks.name}>Columns divided by</span>
        <Select
          aria-label="Columns divided by"
          value={look.separator}
          onChange={(picked) => onSeparator(picked as Separator)}
          options={[...separators.map(([value, name]) => ({ value: value, label: name }))]}
        />
      </label>
      <label className={looks.field}>
        <span className={looks.name}>Decimal sign</span>
        <Select
          aria-label="Decimal sign"
          value={mapping.decimal}
          onChange={(picked) => onMapping({ ...mapping, decimal: picked === ',' ? ',' : '.' })}
          options={[
            { value: '.', label: 'point' },
            { value: ',', label: 'comma' },
          ]}
        />
      </label>
      <label className={looks.field}>
        <span className={looks.name}>Rows at the top that are no data</span>
        <Select
          aria-label="Rows at the top that are no data"
          value={mapping.headerRows}
          onChange={(picked) => onMapping({ ...mapping, headerRows: picked })}
          options={[...look.rows.map((_, index) => ({ value: index, label: index }))]}
        />
      </label>
    </>
  );
}

export function MappingForm({
  state,
  onSeparator,
  onMapping,
  onRead,
  onLeave,
}: {
  readonly state: Extract<State, { at: 'looked' }>;
  readonly onSeparator: (separator: Separator) => void;
  readonly onMapping: (mapping: LogMapping) => void;
  readonly onRead: () => void;
  readonly onLeave: () => void;
}) {
  const { look, mapping } = state;
  const column = (index: number, value: string) => {
    const next = columnOf(value);
    onMapping({
      ...mapping,
      columns: mapping.columns.map((item, position) =>
        position === index ? next : next.holds === 'time' && item.holds === 'time' ? { holds: 'nothing' } : item,
      ),
    });
  };
  const ready =
    mapping.columns.some((item) => item.holds === 'time') && mapping.columns.some((item) => item.holds === 'rail');
  return (
    <section className={looks.block} aria-label="How the file is read">
      <div className={walkHead.walkHead}>
        <h2>{state.file.name}</h2>
        <span className={looks.quiet}>{figureText(state.file.size / 1e6, 1)} MB</span>
        <Button icon={signs.file} type="link" onClick={onLeave}>
          another file
        </Button>
      </div>
      <div className={`${looks.rowActions} ${looks.onFoot} ${looks.above}`}>
        <FileShape look={look} mapping={mapping} onSeparator={onSeparator} onMapping={onMapping} />
        <Button data-primary disabled={!ready} onClick={onRead}>
          Read it <kbd aria-hidden="true">↵</kbd>
        </Button>
      </div>
      {state.told !== null && (
        <p className={`${looks.errorText} ${looks.above}`} role="alert">
          {state.told}
        </p>
      )}
      <Sheet<readonly string[]>
        className={styles.logHead ?? ''}
        rows={look.rows.slice(0, 7)}
        rowKey={(_, index) => index}
        rowProps={(_, index) => ({ className: index < mapping.headerRows ? looks.gone : '' })}
        columns={mapping.columns.map((item, position) => ({
          head: (
            <Select
              className={looks.cellInput}
              aria-label={`Column ${position + 1} holds`}
              value={valueOf(item)}
              popupMatchSelectWidth={false}
              onChange={(picked) => column(position, picked)}
              options={columnOptions}
            />
          ),
          className: looks.fig,
          cell: (row) => row[position] ?? '',
        }))}
      />
    </section>
  );
}
