import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { Button, Radio, Select } from 'antd';
import { adapterNote, allowedAdapters, goesBetween, socketChoices, type InletRow, type Pin } from '@fairwatt/core';
import { Primary } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { signs } from '../../controls/signs.tsx';
import styles from './move-plug.module.css';
import { consequenceOf, plugWays, type Consequence, type PlugQuestion, type PlugWay } from './plug-ways.ts';

/** What a way breaks and what it leaves open, or that it does neither. */
function Told({ told, opens }: Consequence) {
  return (
    <>
      {told.map((text) => (
        <span key={text} className={`${looks.errorText} ${looks.blockNote}`}>
          {text}
        </span>
      ))}
      {opens.length > 0 && (
        <span className={`${looks.errorText} ${looks.blockNote}`}>then open: {opens.join(', ')}</span>
      )}
      {told.length === 0 && opens.length === 0 && (
        <span className={`${looks.blockNote} ${styles.matches}`}>✓ breaks nothing</span>
      )}
    </>
  );
}

/** The question of another plug, as the desk stands. */
function usePlugQuestion(): PlugQuestion {
  const { view, inletLabel, shop } = useDesk();
  const { cabling } = view;
  return useMemo(
    () => ({
      cabling,
      adapters: allowedAdapters(shop.bags),
      inletLabel,
      bagLabel: (id) => shop.bags.cables.find((item) => item.id === id)?.label ?? '',
    }),
    [cabling, shop, inletLabel],
  );
}

/** The question has the keyboard as soon as it stands there, and goes at Escape. */
function useFocusAndEscape(box: RefObject<HTMLElement | null>, onDone: () => void): void {
  useEffect(() => {
    box.current?.querySelector<HTMLInputElement>('input')?.focus();
    const leave = (event: KeyboardEvent) => {
      if (event.key === 'Escape') onDone();
    };
    document.addEventListener('keydown', leave);
    return () => document.removeEventListener('keydown', leave);
  }, [box, onDone]);
}

/** The adapter or extension that goes between plug and inlet. */
function BetweenField({
  fitting,
  value,
  onChange,
}: {
  readonly fitting: ReturnType<typeof adaptersFor>;
  readonly value: string;
  readonly onChange: (adapterId: string) => void;
}) {
  return (
    <label className={looks.field}>
      <span className={looks.name}>In between</span>
      <Select
        aria-label="Between plug and inlet"
        popupMatchSelectWidth={false}
        value={value}
        onChange={onChange}
        options={[
          { value: '', label: 'nothing' },
          ...fitting.map((adapter) => ({
            value: adapter.id,
            label: `${adapter.label}, ${adapterNote(adapter)}`,
          })),
        ]}
      />
    </label>
  );
}

/** Other plugs for an inlet, each with what it would break; the rest of the plan goes around it. */
export function MovePlug({ row, onDone }: { readonly row: InletRow; readonly onDone: () => void }) {
  const { job, act } = useDesk();
  const own = job.pins.find((pin) => pin.inletId === row.inletId);
  const [picked, setPicked] = useState<string | null>(null);
  const [socket, setSocket] = useState(own?.socketLabel ?? '');
  const [between, setBetween] = useState(own?.adapterId ?? '');
  const box = useRef<HTMLFieldSetElement>(null);
  useFocusAndEscape(box, onDone);
  const question = usePlugQuestion();
  const ways = useMemo(() => plugWays(row, question), [row, question]);
  const chosen = ways.find((way) => way.key === picked) ?? null;
  const fitting = chosen === null ? [] : adaptersFor(chosen, question);
  const through = fitting.find(({ id }) => id === between) ?? null;
  const wanted: Pin | null =
    chosen === null
      ? null
      : {
          ...chosen.pin,
          socketLabel: socket === '' ? null : socket,
          ...(through === null ? {} : { adapterId: through.id }),
        };
  const withIt = wanted === null || through === null ? null : consequenceOf(wanted, question);
  const put = () => {
    if (wanted !== null && act({ kind: 'put-pin', basedOn: own?.version ?? 0, pin: wanted }) === null) onDone();
  };
  return (
    <>
      <fieldset ref={box} className={styles.ways} aria-label={`Another plug for ${row.label}`}>
        <legend className={looks.label}>Another plug for it</legend>
        {ways.length === 0 && <p className={looks.quiet}>No other plug of this supply goes in here.</p>}
        {ways.map((way) => (
          <WayLine
            key={way.key}
            way={way}
            comes={picked === way.key && withIt !== null ? withIt : way}
            isPicked={picked === way.key}
            onPick={() => {
              setPicked(way.key);
              setSocket('');
            }}
            onPut={put}
          />
        ))}
      </fieldset>
      <div className={styles.fields}>
        {chosen !== null && <SocketField chosen={chosen} value={socket} onChange={setSocket} />}
        {fitting.length > 0 && <BetweenField fitting={fitting} value={through?.id ?? ''} onChange={setBetween} />}
      </div>
      <div className={looks.rowActions}>
        {own !== undefined && (
          <Button
            onClick={() => {
              if (act({ kind: 'drop-pin', inletId: row.inletId, basedOn: own.version }) === null) onDone();
            }}
          >
            Leave it to the plan
          </Button>
        )}
        <Button icon={signs.previous} type="link" onClick={onDone}>
          back
        </Button>
      </div>
      {ways.length === 0 ? (
        <Primary onClick={onDone}>Back to the connector</Primary>
      ) : (
        <Primary disabled={chosen === null} onClick={put}>
          {chosen === null ? 'Pick a plug' : 'Put it there'}
        </Primary>
      )}
    </>
  );
}

/** What goes between the plug of a way and its inlet. */
function adaptersFor({ pin }: PlugWay, { cabling: { kit, inlets }, adapters }: PlugQuestion) {
  const kind = kit?.cables.find((cable) => cable.id === pin.kitCableId)?.plugs[pin.plugIndex]?.kind;
  const inlet = inlets.find((item) => item.id === pin.inletId);
  return kind === undefined || inlet === undefined
    ? []
    : adapters.filter((adapter) => goesBetween(kind, adapter, inlet));
}

/** The socket of the supply that the cable goes into; the plan's unless one is picked. */
function SocketField({
  chosen,
  value,
  onChange,
}: {
  readonly chosen: PlugWay;
  readonly value: string;
  readonly onChange: (label: string) => void;
}) {
  const { kit } = useDesk().view.cabling;
  const family = kit?.cables.find((cable) => cable.id === chosen.pin.kitCableId);
  if (kit === null || family === undefined || family.fixed) return null;
  return (
    <label className={looks.field}>
      <span className={looks.name}>Socket</span>
      <Select
        aria-label="Socket"
        popupMatchSelectWidth={false}
        value={value}
        onChange={onChange}
        options={[
          { value: '', label: 'as the plan has it' },
          ...socketChoices(kit.sockets, family).map((name) => ({ value: name, label: name })),
        ]}
      />
    </label>
  );
}

function WayLine({
  way,
  comes,
  isPicked,
  onPick,
  onPut,
}: {
  readonly way: PlugWay;
  /** What comes of it as it is picked now. */
  readonly comes: Consequence;
  readonly isPicked: boolean;
  readonly onPick: () => void;
  readonly onPut: () => void;
}) {
  return (
    <div data-way-plug={way.key}>
      <Radio
        className={styles.wayRow ?? ''}
        name="way"
        checked={isPicked}
        onChange={onPick}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            event.preventDefault();
            onPut();
          }
        }}
      >
        <span>
          <strong>{way.name}</strong> <span className={looks.quiet}>{way.now}</span>
          <Told told={comes.told} opens={comes.opens} />
        </span>
      </Radio>
    </div>
  );
}
