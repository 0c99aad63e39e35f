import { useEffect, useState } from 'react';
import { Button, Input } from 'antd';
import { foundHarms, likelyHarness, partsAt, presentModel, type RecordedCable } from '@fairwatt/core';
import { Empty } from '../../controls/empty.tsx';
import { useSteady } from '../../controls/use-steady.ts';
import { FigureField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { Sheet } from '../../controls/sheet.tsx';
import { RecordedPlugs } from './recorded-plug.tsx';
import { RecordByDrawing } from './record-by-drawing.tsx';
import { SocketField } from './socket-field.tsx';
import styles from './harness-record.module.css';

/** The present cables: socket, plugs, inlets, the way each runs. */
export function HarnessRecord() {
  const { job, shop, act, locked, offerUndo } = useDesk();
  const inlets = partsAt(job.parts, 'present').flatMap((part) => part.inlets);
  const served = new Set(job.cables.flatMap((cable) => cable.plugs.flatMap((plug) => plug.inletId ?? [])));
  const harms = foundHarms(job);
  const kit = presentModel(job, shop.supplies)?.kit ?? null;
  const socketTwice = (cable: RecordedCable) =>
    cable.socketLabel.trim() !== '' &&
    job.cables.some((other) => other !== cable && other.socketLabel.trim() === cable.socketLabel.trim());
  const put = useSteady((cable: RecordedCable, changes: Partial<RecordedCable>) => {
    // What was typed meanwhile elsewhere in its line is kept. Whoever changes it has looked at it.
    const now = job.cables.find(({ id }) => id === cable.id) ?? cable;
    const { version, ...rest } = { ...now, likely: undefined, ...changes };
    act({ kind: 'put-cable', cable: rest, basedOn: version });
  });
  const drop = useSteady((cable: RecordedCable) => {
    if (act({ kind: 'drop-cable', cableId: cable.id, basedOn: cable.version }) === null)
      offerUndo(`Cable ${cable.label} is taken out.`);
  });
  const likely = job.cables.filter((cable) => cable.likely === true);
  // Whoever says of one cable that it is so goes on to the next that nobody looked at.
  const [looked, setLooked] = useState(0);
  useEffect(() => {
    if (looked > 0) document.querySelector<HTMLElement>('[data-likely]')?.focus();
  }, [looked]);
  return (
    <>
      {inlets.length > 0 && (
        <RecordByDrawing
          onStart={() => {
            for (const cable of likelyHarness(job, () => crypto.randomUUID()))
              act({ kind: 'put-cable', cable, basedOn: 0 });
          }}
        />
      )}
      {likely.length > 0 && (
        <div className={styles.likely} role="status">
          <span>
            {likely.length === 1 ? 'One cable stands' : `${likely.length} cables stand`} as such cables usually run, and
            nobody looked yet: look along each, correct it, or say that it is so.
          </span>
          <Button
            disabled={locked}
            onClick={() => {
              for (const cable of likely) put(cable, {});
            }}
          >
            I looked: all {likely.length} are so
          </Button>
        </div>
      )}
      {job.cables.length === 0 ? (
        <Empty title="No cables recorded">
          Point at a socket and at its inlets above, or press an inlet: its cable is added with the plug that usually
          goes there. Or start from a likely harness and correct what is not so.
        </Empty>
      ) : (
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
            {
              head: 'Cable',
              width: 58,
              cell: (cable) => (
                <Input
                  className="cell-input fig"
                  aria-label={`Label of cable ${cable.label}`}
                  value={cable.label}
                  maxLength={20}
                  disabled={locked}
                  onChange={(event) => {
                    if (event.target.value.trim() !== '') put(cable, { label: event.target.value });
                  }}
                />
              ),
            },
            {
              head: 'Socket',
              width: 104,
              cell: (cable) => (
                <>
                  <SocketField
                    cable={cable}
                    kit={kit}
                    invalid={socketTwice(cable)}
                    disabled={locked}
                    onPut={(socketLabel) => put(cable, { socketLabel })}
                  />
                  {socketTwice(cable) && (
                    <span className="error-text" role="status">
                      another cable is in it too
                    </span>
                  )}
                </>
              ),
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
            {
              head: 'Way: holes, clips, hooks',
              cell: (cable) => (
                <Input
                  className="cell-input"
                  aria-label={`Way of cable ${cable.label}`}
                  value={cable.way}
                  maxLength={300}
                  disabled={locked}
                  onChange={(event) => put(cable, { way: event.target.value })}
                />
              ),
            },
            {
              head: 'Ties to cut',
              width: 66,
              cell: (cable) => (
                <FigureField
                  bare
                  label={`Ties to cut on cable ${cable.label}`}
                  value={cable.tiesToCut}
                  most={99}
                  whole
                  disabled={locked}
                  onChange={(tiesToCut) => {
                    if (tiesToCut !== null) put(cable, { tiesToCut });
                  }}
                />
              ),
            },
            {
              head: <span className="visually-hidden">Acts</span>,
              cell: (cable) => (
                <>
                  {cable.likely === true && (
                    <Button
                      data-record-next
                      data-likely
                      disabled={locked}
                      aria-label={`Cable ${cable.label} is so`}
                      onClick={() => {
                        put(cable, {});
                        setLooked((count) => count + 1);
                      }}
                    >
                      it is so
                    </Button>
                  )}
                  <Button
                    type="link"
                    disabled={locked}
                    aria-label={`Take out cable ${cable.label}`}
                    onClick={() => drop(cable)}
                  >
                    take out
                  </Button>
                </>
              ),
            },
          ]}
        />
      )}
    </>
  );
}
