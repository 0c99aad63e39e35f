import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Button, Radio, Select } from 'antd';
import {
  adapterNote,
  allowedAdapters,
  breachText,
  checkPlan,
  goesBetween,
  kitCableText,
  pinRefusalText,
  planCables,
  plugFits,
  socketChoices,
  spareId,
  type InletRow,
  type Pin,
  type PlanRules,
} from '@fairwatt/core';
import { Primary } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import styles from './move-plug.module.css';

interface Way {
  readonly key: string;
  readonly pin: Pin;
  readonly name: string;
  readonly now: string;
}

/** What a plan with this pin breaks at its inlet, and which inlets it leaves open that are served now. */
interface Consequence {
  readonly told: readonly string[];
  readonly opens: readonly string[];
}

/** What a way breaks and what it leaves open, or that it does neither. */
function Told({ told, opens }: Consequence) {
  return (
    <>
      {told.map((text) => (
        <span key={text} className="error-text block-note">
          {text}
        </span>
      ))}
      {opens.length > 0 && <span className="error-text block-note">then open: {opens.join(', ')}</span>}
      {told.length === 0 && opens.length === 0 && (
        <span className="block-note" style={{ color: 'var(--pass)' }}>
          ✓ breaks nothing
        </span>
      )}
    </>
  );
}

/** Other plugs for an inlet, each with what it would break; the rest of the plan goes around it. */
export function MovePlug({ row, onDone }: { readonly row: InletRow; readonly onDone: () => void }) {
  const { job, view, act, inletLabel, shop } = useDesk();
  const { cabling } = view;
  const { kit, plan, inlets, rows } = cabling;
  const own = job.pins.find((pin) => pin.inletId === row.inletId);
  const [picked, setPicked] = useState<string | null>(null);
  const [socket, setSocket] = useState(own?.socketLabel ?? '');
  const [between, setBetween] = useState(own?.adapterId ?? '');
  const box = useRef<HTMLFieldSetElement>(null);
  useEffect(() => {
    box.current?.querySelector<HTMLInputElement>('input')?.focus();
    const leave = (event: KeyboardEvent) => {
      if (event.key === 'Escape') onDone();
    };
    document.addEventListener('keydown', leave);
    return () => document.removeEventListener('keydown', leave);
  }, [onDone]);
  const adapters = useMemo(() => allowedAdapters(shop.bags), [shop]);
  const consequenceOf = useCallback(
    (pin: Pin): Consequence => {
      if (kit === null || plan === null) return { told: [], opens: [] };
      const openNow = new Set(plan.open.map((item) => item.inletId));
      const wished = adapters.filter(
        ({ id }) => id === pin.adapterId && !cabling.rules.adapters.some((one) => one.id === id),
      );
      const withPin: PlanRules = {
        ...cabling.rules,
        adapters: [...cabling.rules.adapters, ...wished],
        pins: [...cabling.rules.pins.filter((item) => item.inletId !== pin.inletId), pin],
      };
      const then = planCables(kit, inlets, withPin);
      return {
        told: [
          ...then.refused
            .filter((refusal) => refusal.inletId === pin.inletId)
            .map((refusal) => pinRefusalText(refusal, inletLabel)),
          ...checkPlan(kit, inlets, then.assignments, withPin).map((breach) => breachText(breach, inletLabel)),
        ],
        opens: then.open.filter((item) => !openNow.has(item.inletId)).map((item) => inletLabel(item.inletId)),
      };
    },
    [kit, plan, inlets, cabling.rules, adapters, inletLabel],
  );
  const ways = useMemo((): readonly (Way & Consequence)[] => {
    if (kit === null || plan === null) return [];
    const inlet = inlets.find((item) => item.id === row.inletId)!;
    return kit.cables
      .flatMap((cable) => {
        const used = plan.cables.filter((item) => item.kitCableId === cable.id).map((item) => item.copy);
        // Of the pieces that nobody uses one is enough: they are alike.
        const fresh = Array.from({ length: cable.count }, (_, copy) => copy).find((copy) => !used.includes(copy));
        return [...used, ...(fresh === undefined ? [] : [fresh])].flatMap((copy) =>
          cable.plugs.flatMap((plug, plugIndex): (Way & Consequence)[] => {
            const here = row.kitCableId === cable.id && row.copy === copy && row.plugIndex === plugIndex;
            // The plug that is planned now is a way only with something between.
            const through = adapters.some((adapter) => goesBetween(plug.kind, adapter, inlet));
            if (here ? !through : !plugFits(plug.kind, cable, inlet)) return [];
            const pin: Pin = { inletId: row.inletId, kitCableId: cable.id, copy, plugIndex, socketLabel: null };
            const there = rows.find(
              (other) => other.kitCableId === cable.id && other.copy === copy && other.plugIndex === plugIndex,
            );
            const code = plan.cables.find((item) => item.kitCableId === cable.id && item.copy === copy)?.code;
            const spare = spareId(cable.id);
            const name =
              spare === null
                ? kitCableText(cable)
                : `spare ${shop.bags.cables.find((item) => item.id === spare)?.label ?? ''}, ${kitCableText(cable)}`;
            return [
              {
                key: `${cable.id} ${copy} ${plugIndex}`,
                pin,
                name:
                  code === undefined ? `One more, ${name}` : `${code}, plug ${plugIndex + 1} of ${cable.plugs.length}`,
                now: here
                  ? 'as it is planned now'
                  : there === undefined
                    ? code === undefined
                      ? 'in the bag now'
                      : 'free now'
                    : `now at ${there.label}`,
                ...consequenceOf(pin),
              },
            ];
          }),
        );
      })
      .sort((a, b) => a.told.length + a.opens.length - b.told.length - b.opens.length);
  }, [kit, plan, inlets, rows, row, adapters, shop, consequenceOf]);
  const chosen = ways.find((way) => way.key === picked) ?? null;
  const family = chosen === null ? null : kit!.cables.find((cable) => cable.id === chosen.pin.kitCableId)!;
  const fitting =
    chosen === null || family === null
      ? []
      : adapters.filter((adapter) =>
          goesBetween(
            family.plugs[chosen.pin.plugIndex]!.kind,
            adapter,
            inlets.find((item) => item.id === row.inletId)!,
          ),
        );
  const through = fitting.find(({ id }) => id === between) ?? null;
  const wanted: Pin | null =
    chosen === null
      ? null
      : {
          ...chosen.pin,
          socketLabel: socket === '' ? null : socket,
          ...(through === null ? {} : { adapterId: through.id }),
        };
  const withIt = wanted === null || through === null ? null : consequenceOf(wanted);
  const put = () => {
    if (wanted !== null && act({ kind: 'put-pin', basedOn: own?.version ?? 0, pin: wanted }) === null) onDone();
  };
  return (
    <>
      <fieldset ref={box} className="ways" aria-label={`Another plug for ${row.label}`}>
        <legend className="label">Another plug for it</legend>
        {ways.length === 0 && <p className="quiet">No other plug of this supply goes in here.</p>}
        {ways.map((way) => (
          <div key={way.key} data-way-plug={way.key}>
            <Radio
              className="way-row"
              name="way"
              checked={picked === way.key}
              onChange={() => {
                setPicked(way.key);
                setSocket('');
              }}
              onKeyDown={(event) => {
                if (event.key === 'Enter') {
                  event.preventDefault();
                  put();
                }
              }}
            >
              <span>
                <strong>{way.name}</strong> <span className="quiet">{way.now}</span>
                <Told {...(picked === way.key && withIt !== null ? withIt : way)} />
              </span>
            </Radio>
          </div>
        ))}
      </fieldset>
      <div className={styles.fields}>
        {chosen !== null && family !== null && !family.fixed && (
          <label className="field">
            <span className="name">Socket</span>
            <Select
              aria-label="Socket"
              popupMatchSelectWidth={false}
              value={socket}
              onChange={(picked) => setSocket(picked)}
              options={[
                { value: '', label: 'as the plan has it' },
                ...socketChoices(kit!.sockets, family).map((name) => ({ value: name, label: name })),
              ]}
            />
          </label>
        )}
        {fitting.length > 0 && (
          <label className="field">
            <span className="name">In between</span>
            <Select
              aria-label="Between plug and inlet"
              popupMatchSelectWidth={false}
              value={through?.id ?? ''}
              onChange={setBetween}
              options={[
                { value: '', label: 'nothing' },
                ...fitting.map((adapter) => ({
                  value: adapter.id,
                  label: `${adapter.label}, ${adapterNote(adapter)}`,
                })),
              ]}
            />
          </label>
        )}
      </div>
      <div className="row-actions">
        {own !== undefined && (
          <Button
            onClick={() => {
              if (act({ kind: 'drop-pin', inletId: row.inletId, basedOn: own.version }) === null) onDone();
            }}
          >
            Leave it to the plan
          </Button>
        )}
        <Button type="link" onClick={onDone}>
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
