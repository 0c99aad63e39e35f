import { useState, type ReactNode } from 'react';
import { Button } from 'antd';
import {
  harnessChanges,
  harnessWordText,
  kitCableText,
  tagsOf,
  unanswered,
  openPointText,
  isConnectorOpen,
} from '@fairwatt/core';
import { labelStocks, type LabelStock } from '@fairwatt/contract';
import { problemOf, usePrintLabelsMutation } from '../../app/api.ts';
import { Empty } from '../../controls/empty.tsx';
import { FigureField, Primary, SelectField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import type { OpenWay } from './cables.tsx';
import { Sheet } from '../../controls/sheet.tsx';
import { signs } from '../../controls/signs.tsx';
import styles from './changes-view.module.css';

const stockText: Record<LabelStock, string> = {
  'a4-24': 'A4, 24 labels of 70 x 37 mm',
  'a4-65': 'A4, 65 labels of 38 x 21 mm',
  roll: 'Roll, 57 x 32 mm',
};
const marks = { same: '=', replaced: '→', new: '+', gone: '−', open: '!', 'not-recorded': '?' } as const;

/** Which cable is at one end of the comparison: its name, its socket, its adapter. */
function endText(
  end: { readonly cable: string; readonly socketLabel: string | null; readonly through?: string | null } | null,
): string {
  if (end === null) return '-';
  const through = end.through == null ? null : `through ${end.through}`;
  return [end.cable, end.socketLabel, through].filter((piece) => piece !== null).join(', ');
}

function ChangeSheet() {
  const { job, view } = useDesk();
  return (
    <Sheet
      label="Before and after"
      rows={harnessChanges(job, view.cabling)}
      rowKey={(change) => change.inletId}
      rowProps={(change) => ({
        'data-change': change.word,
        className: change.word === 'gone' || change.word === 'same' ? looks.quiet : undefined,
      })}
      columns={[
        { head: 'Inlet', cell: (change) => change.label },
        { head: 'Before', cell: (change) => endText(change.before) },
        { head: 'After', cell: (change) => endText(change.after) },
        {
          head: 'What changed',
          cell: (change) => (
            <>
              <span className={looks.fig} aria-hidden="true">
                {marks[change.word]}
              </span>{' '}
              {harnessWordText[change.word]}
            </>
          ),
          cellProps: (change) => ({
            style: change.word === 'open' ? { color: 'var(--fail)', fontWeight: 700 } : undefined,
          }),
        },
      ]}
    />
  );
}

/** Pieces of the new supply's set that no inlet of this machine needs. */
function Bagged() {
  const { cabling, chosen } = useDesk().view;
  const bagged = cabling.plan?.bagged ?? [];
  if (bagged.length === 0) return null;
  const pieceText = (id: string) => {
    const piece = chosen?.kit.cables.find((cable) => cable.id === id);
    return piece === undefined ? id : kitCableText(piece);
  };
  return (
    <p className={looks.below}>
      <strong>Left out, into a bag labelled {chosen?.name}:</strong>{' '}
      {bagged.map(({ count, kitCableId }) => `${count} × ${pieceText(kitCableId)}`).join('; ')}. No inlet of this
      machine needs them; the next card may.
    </p>
  );
}

/** Tags and the schedule, printed or as files. */
function OnPaper() {
  const { code, view, technician } = useDesk();
  const [stock, setStock] = useState<LabelStock>('a4-24');
  const [skip, setSkip] = useState(0);
  const [print, printing] = usePrintLabelsMutation();
  const tags = tagsOf(view.cabling).length;
  const base = `/api/jobs/${encodeURIComponent(code)}`;
  return (
    <section className={`${looks.block} ${looks.wellBelow}`} aria-label="On paper">
      <span className={looks.label}>Tags for both ends of each cable, {tags}</span>
      <div className={`${looks.rowActions} ${looks.onFoot}`}>
        <div className={styles.printer}>
          <SelectField
            label="Label stock"
            value={stock}
            options={labelStocks.map((value) => ({ value, label: stockText[value] }))}
            onChange={setStock}
          />
        </div>
        <div className={styles.stock}>
          <FigureField label="Labels used up" value={skip} most={64} whole onChange={(value) => setSkip(value ?? 0)} />
        </div>
        <Button
          icon={signs.paper}
          href={`${base}/labels.pdf?stock=${stock}&skip=${stock === 'roll' ? 0 : skip}`}
          target="_blank"
          rel="noreferrer"
        >
          Tags as PDF
        </Button>
        <Button
          icon={signs.print}
          disabled={technician === null || printing.isLoading}
          onClick={() => void print({ code, by: technician ?? '', what: 'cables' })}
        >
          {printing.isLoading ? 'Printing …' : 'Print on the label printer'}
        </Button>
      </div>
      {printing.isError && (
        <p className={looks.errorText} role="alert">
          {problemOf(printing.error).title}
        </p>
      )}
      {printing.data !== undefined && !printing.isError && (
        <p role="status">
          {printing.data.labels} labels printed, print job {printing.data.job}.
        </p>
      )}
      <p className={`${looks.quiet} ${looks.below}`}>The code on a tag opens the record of its cable.</p>
      <div className={`${looks.rowActions} ${looks.below}`}>
        <Button icon={signs.paper} href={`${base}/cables.pdf`} target="_blank" rel="noreferrer">
          Cable schedule as PDF
        </Button>
        <Button icon={signs.save} href={`${base}/cables.csv`}>
          as CSV
        </Button>
      </div>
    </section>
  );
}

/** Before against after, what stays in the bag, what is still open; tags and the schedule on paper. */
export function ChangesView({ tabs, onWay }: { readonly tabs: ReactNode; readonly onWay: OpenWay }) {
  const { view, goTo } = useDesk();
  const isNone = view.cabling.basis === 'none';
  const open = unanswered(view.openPoints).filter(isConnectorOpen);
  return (
    <>
      <div className={looks.work}>
        {tabs}
        {isNone ? (
          <Empty title="Nothing to compare yet">Record the present cables, or choose a supply.</Empty>
        ) : (
          <>
            <ChangeSheet />
            <Bagged />
            <OnPaper />
          </>
        )}
      </div>
      <aside className={looks.side} aria-label="What remains">
        <span className={looks.label}>What remains</span>
        <div className={looks.decides} data-remaining={open.length}>
          {isNone ? 'Nothing planned' : open.length === 0 ? 'Nothing is open' : `${open.length} still open`}
        </div>
        <ul className={styles.list}>
          {open.map((point) => (
            <li key={point.key}>○ {openPointText(point)}</li>
          ))}
        </ul>
        <Primary
          onClick={() => {
            if (open.length === 0) goTo('hand-over');
            else onWay('plan');
          }}
        >
          {open.length === 0 ? 'Hand over' : 'Back to the connectors'}
        </Primary>
      </aside>
    </>
  );
}
