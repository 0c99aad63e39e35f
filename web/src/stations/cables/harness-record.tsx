import { useEffect, useState } from 'react';
import { Button, Input } from 'antd';
import { foundHarms, likelyHarness, partsAt, presentModel, type CableKit, type RecordedCable } from '@fairwatt/core';
import { Empty } from '../../controls/empty.tsx';
import { useSteady } from '../../controls/use-steady.ts';
import { FigureField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { Sheet } from '../../controls/sheet.tsx';
import { looks } from '../../looks/looks.ts';
import { RecordedPlugs } from './recorded-plug.tsx';
import { RecordByDrawing } from './record-by-drawing.tsx';
import { SocketField } from './socket-field.tsx';
import { signs } from '../../controls/signs.tsx';
import styles from './harness-record.module.css';

type PutCable = (cable: RecordedCable, changes: Partial<RecordedCable>) => void;
interface CableCell {
  readonly cable: RecordedCable;
  readonly disabled: boolean;
  readonly onPut: PutCable;
}

/** Changes a recorded cable, or takes it out; both stay the same from one drawing to the next. */
function useCableActs() {
  const { job, act, offerUndo } = useDesk();
  const put: PutCable = useSteady((cable: RecordedCable, changes: Partial<RecordedCable>) => {
    // What was typed meanwhile elsewhere in its line is kept. Whoever changes it has looked at it.
    const now = job.cables.find(({ id }) => id === cable.id) ?? cable;
    const { version, ...rest } = { ...now, likely: undefined, ...changes };
    act({ kind: 'put-cable', cable: rest, basedOn: version });
  });
  const drop = useSteady((cable: RecordedCable) => {
    if (act({ kind: 'drop-cable', cableId: cable.id, basedOn: cable.version }) === null)
      offerUndo(`Cable ${cable.label} is taken out.`);
  });
  return { put, drop };
}

/** Whoever says of one cable that it is so goes on to the next that nobody looked at. */
function useNextLikely(): () => void {
  const [looked, setLooked] = useState(0);
  useEffect(() => {
    if (looked > 0) document.querySelector<HTMLElement>('[data-likely]')?.focus();
  }, [looked]);
  return useSteady(() => setLooked((count) => count + 1));
}

/** Cables that stand as such cables usually run, until somebody has looked. */
function LikelyStrip({ onLooked }: { readonly onLooked: PutCable }) {
  const { job, locked } = useDesk();
  const likely = job.cables.filter((cable) => cable.likely === true);
  if (likely.length === 0) return null;
  return (
    <div className={styles.likely} role="status">
      <span>
        {likely.length === 1 ? 'One cable stands' : `${likely.length} cables stand`} as such cables usually run, and
        nobody looked yet: look along each, correct it, or say that it is so.
      </span>
      <Button
        disabled={locked}
        onClick={() => {
          for (const cable of likely) onLooked(cable, {});
        }}
      >
        {likely.length === 1 ? 'I looked: it is so' : `I looked: all ${likely.length} are so`}
      </Button>
    </div>
  );
}

function LabelCell({ cable, disabled, onPut }: CableCell) {
  return (
    <Input
      className={`${looks.cellInput} ${looks.fig}`}
      aria-label={`Label of cable ${cable.label}`}
      value={cable.label}
      maxLength={20}
      disabled={disabled}
      onChange={(event) => {
        if (event.target.value.trim() !== '') onPut(cable, { label: event.target.value });
      }}
    />
  );
}

function SocketCell({
  cable,
  kit,
  isTwice,
  disabled,
  onPut,
}: CableCell & { readonly kit: CableKit | null; readonly isTwice: boolean }) {
  return (
    <>
      <SocketField
        cable={cable}
        kit={kit}
        invalid={isTwice}
        disabled={disabled}
        onPut={(socketLabel) => onPut(cable, { socketLabel })}
      />
      {isTwice && (
        <span className={looks.errorText} role="status">
          another cable is in it too
        </span>
      )}
    </>
  );
}

function WayCell({ cable, disabled, onPut }: CableCell) {
  return (
    <Input
      className={looks.cellInput}
      aria-label={`Way of cable ${cable.label}`}
      value={cable.way}
      maxLength={300}
      disabled={disabled}
      onChange={(event) => onPut(cable, { way: event.target.value })}
    />
  );
}

function TiesCell({ cable, disabled, onPut }: CableCell) {
  return (
    <FigureField
      bare
      label={`Ties to cut on cable ${cable.label}`}
      value={cable.tiesToCut}
      most={99}
      whole
      disabled={disabled}
      onChange={(tiesToCut) => {
        if (tiesToCut !== null) onPut(cable, { tiesToCut });
      }}
    />
  );
}

function ActsCell({
  cable,
  disabled,
  onLooked,
  onDrop,
}: Omit<CableCell, 'onPut'> & { readonly onLooked: () => void; readonly onDrop: () => void }) {
  return (
    <>
      {cable.likely === true && (
        <Button
          data-record-next
          data-likely
          disabled={disabled}
          aria-label={`Cable ${cable.label} is so`}
          onClick={onLooked}
        >
          it is so
        </Button>
      )}
      <Button
        icon={signs.remove}
        type="link"
        disabled={disabled}
        aria-label={`Take out cable ${cable.label}`}
        onClick={onDrop}
      >
        take out
      </Button>
    </>
  );
}

/** A line for each recorded cable. */
function CableSheet({ put, drop }: ReturnType<typeof useCableActs>) {
  const { job, shop, locked } = useDesk();
  const inlets = partsAt(job.parts, 'present').flatMap((part) => part.inlets);
  const served = new Set(job.cables.flatMap((cable) => cable.plugs.flatMap((plug) => plug.inletId ?? [])));
  const harms = foundHarms(job);
  const kit = presentModel(job, shop.supplies)?.kit ?? null;
  const socketTwice = (cable: RecordedCable) =>
    cable.socketLabel.trim() !== '' &&
    job.cables.some((other) => other !== cable && other.socketLabel.trim() === cable.socketLabel.trim());
  const toNextLikely = useNextLikely();
  const shared = { disabled: locked, onPut: put };
  return (
    <Sheet
      label="Recorded cables"
      rows={job.cables}
      rowKey={(cable) => cable.id}
      drawnFrom={JSON.stringify([
        locked,
        kit?.sockets,
        inlets.map(({ id, label, kind }) => [id, label, kind]),
        [...served],
        [...harms],
        job.cables.map(socketTwice),
      ])}
      rowProps={(cable) => ({ className: cable.likely === true ? (styles.unseen ?? '') : '' })}
      columns={[
        { head: 'Cable', width: 58, cell: (cable) => <LabelCell cable={cable} {...shared} /> },
        {
          head: 'Socket',
          width: 104,
          cell: (cable) => <SocketCell cable={cable} kit={kit} isTwice={socketTwice(cable)} {...shared} />,
        },
        {
          head: 'Plugs, first at the supply',
          cell: (cable) => (
            <RecordedPlugs
              cable={cable}
              inlets={inlets}
              served={served}
              harms={harms}
              disabled={locked}
              onPut={(plugs) => put(cable, { plugs })}
            />
          ),
        },
        { head: 'Way: holes, clips, hooks', cell: (cable) => <WayCell cable={cable} {...shared} /> },
        { head: 'Ties to cut', width: 66, cell: (cable) => <TiesCell cable={cable} {...shared} /> },
        {
          head: <span className={looks.visuallyHidden}>Acts</span>,
          cell: (cable) => (
            <ActsCell
              cable={cable}
              disabled={locked}
              onLooked={() => {
                put(cable, {});
                toNextLikely();
              }}
              onDrop={() => drop(cable)}
            />
          ),
        },
      ]}
    />
  );
}

/** The present cables: socket, plugs, inlets, the way each runs. */
export function HarnessRecord() {
  const { job, act } = useDesk();
  const acts = useCableActs();
  const hasInlets = partsAt(job.parts, 'present').some((part) => part.inlets.length > 0);
  return (
    <>
      {hasInlets && (
        <RecordByDrawing
          onStart={() => {
            for (const cable of likelyHarness(job, () => crypto.randomUUID()))
              act({ kind: 'put-cable', cable, basedOn: 0 });
          }}
        />
      )}
      <LikelyStrip onLooked={acts.put} />
      {job.cables.length === 0 ? (
        <Empty title="No cables recorded">
          Point at a socket and at its inlets above, or press an inlet: its cable is added with the plug that usually
          goes there. Or start from a likely harness and correct what is not so.
        </Empty>
      ) : (
        <CableSheet {...acts} />
      )}
    </>
  );
}
