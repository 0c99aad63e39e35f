import { useState } from 'react';
import { Button } from 'antd';
import {
  standardInletKinds,
  inletName,
  judgeProbe,
  probeWordText,
  type Guide,
  type InletKind,
  type Phase,
} from '@fairwatt/core';
import { SelectField, TextField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks, verdictLook } from '../../looks/looks.ts';
import { Walk } from './walk.tsx';
import { walkMark, wrongPins } from './walk-words.ts';
import { signs } from '../../controls/signs.tsx';
import styles from './probe-walk.module.css';

/** Plugs that were walked, with what they came to. */
function Walked({ guide, onOpen }: { readonly guide: Guide; readonly onOpen: (probeId: string) => void }) {
  const { job, act, locked, offerUndo } = useDesk();
  return (
    <section aria-label="Walks">
      <span className={looks.label}>Walked</span>
      <ul className={looks.trail}>
        {job.probes.map((item) => {
          const verdict = judgeProbe(item.plug, item.pins, guide);
          return (
            <li key={item.id} data-probe={item.id}>
              <span className={verdictLook(walkMark[verdict.word])}>{probeWordText[verdict.word]}</span>
              <span className={looks.what}>
                <strong>{item.label}</strong>, {inletName[item.plug]}
                <span className={`${looks.quiet} ${looks.blockNote}`}>{wrongPins(item, guide)}</span>
              </span>
              <Button type="link" onClick={() => onOpen(item.id)}>
                open
              </Button>
              <Button
                icon={signs.remove}
                type="link"
                disabled={locked}
                onClick={() => {
                  if (act({ kind: 'drop-probe', probeId: item.id, basedOn: item.version }) === null)
                    offerUndo(`${item.label} is removed.`);
                }}
              >
                remove
              </Button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** One plug, pin by pin: the pin to touch is lit, what it must show is said, and the entry goes on by itself. */
export function ProbeWalk({ phase, barred }: { readonly phase: Phase; readonly barred: boolean }) {
  const { job, view, act, locked } = useDesk();
  const guide = view[phase].guide;
  const [openId, setOpen] = useState<string | null>(null);
  const [label, setLabel] = useState('');
  const [plug, setPlug] = useState<InletKind>('card-8');
  const probe = job.probes.find((item) => item.id === openId) ?? null;
  const begin = () => {
    const id = crypto.randomUUID();
    const name = label.trim() === '' ? `Cable ${job.probes.length + 1}` : label.trim();
    if (act({ kind: 'put-probe', probe: { id, label: name, plug, pins: [], note: '' }, basedOn: 0 }) === null) {
      setOpen(id);
      setLabel('');
    }
  };
  if (probe !== null)
    return <Walk key={probe.id} probe={probe} phase={phase} barred={barred} onClose={() => setOpen(null)} />;
  return (
    <>
      <section className={looks.block} aria-label="New walk">
        <p>
          Touch every pin of a plug in turn. It proves a loose or borrowed cable at its device end before it is trusted,
          and finds a wrong wire before it burns something.
        </p>
        <div className={styles.walkNew}>
          <TextField
            label="Cable"
            value={label}
            placeholder="Borrowed card cable, grey sleeve"
            maxLength={40}
            disabled={locked}
            onChange={setLabel}
          />
          <SelectField
            label="Plug"
            value={plug}
            options={standardInletKinds.map((kind) => ({ value: kind, label: inletName[kind] }))}
            disabled={locked}
            onChange={setPlug}
          />
          <Button disabled={locked || barred} data-primary onClick={begin}>
            Start the walk
          </Button>
        </div>
        <p className={`${looks.caution} ${looks.below}`}>
          The device stays unplugged. Supply on by its start line alone; black probe on a ground of the main plug, one
          hand, no slip to the next pin.
        </p>
      </section>
      {job.probes.length > 0 && <Walked guide={guide} onOpen={setOpen} />}
    </>
  );
}
