import { Button, Checkbox, Select } from 'antd';
import {
  foundHarmText,
  mostFoundLegs,
  plugKinds,
  plugName,
  plugServes,
  usualPlug,
  type FoundHarm,
  type Inlet,
  type RecordedCable,
  type RecordedPlug,
} from '@fairwatt/core';
import { looks, verdictLook } from '../../looks/looks.ts';
import { signs } from '../../controls/signs.tsx';
import styles from './harness-record.module.css';

const plugOptions = plugKinds.map((kind) => ({ value: kind, label: plugName[kind] }));

const legOptions = Array.from({ length: mostFoundLegs }, (_, index) => ({
  value: index + 1,
  label: index === 0 ? 'by one cable' : `by ${index + 1} cables`,
}));

/** The adapter that was found between a plug and its inlet. */
function FoundAdapter({
  plug,
  through,
  name,
  harm,
  disabled,
  onPut,
}: {
  readonly plug: RecordedPlug;
  readonly through: NonNullable<RecordedPlug['through']>;
  readonly name: string;
  readonly harm: FoundHarm | null;
  readonly disabled: boolean;
  readonly onPut: (plug: RecordedPlug) => void;
}) {
  return (
    <fieldset className={styles.through} aria-label={`Adapter at ${name}`}>
      <Select
        className={looks.cellInput}
        aria-label={`What the adapter at ${name} becomes`}
        value={through.gives}
        disabled={disabled}
        onChange={(gives) => onPut({ ...plug, through: { ...through, gives } })}
        options={plugOptions}
      />
      <Select
        className={looks.cellInput}
        aria-label={`Cables into the adapter at ${name}`}
        value={through.legs}
        disabled={disabled}
        onChange={(legs) => onPut({ ...plug, through: { ...through, legs } })}
        options={legOptions}
      />
      <Checkbox
        checked={through.moulded}
        disabled={disabled}
        onChange={(event) => onPut({ ...plug, through: { ...through, moulded: event.target.checked } })}
      >
        moulded
      </Checkbox>
      <Button
        type="link"
        disabled={disabled}
        aria-label={`No adapter at ${name}`}
        onClick={() => onPut({ kind: plug.kind, inletId: plug.inletId })}
      >
        none
      </Button>
      {harm === null ? (
        <span className={looks.quiet}>may stay, as far as it can be told from outside</span>
      ) : (
        <span className={verdictLook('fail')} role="status">
          {foundHarmText(harm)}
        </span>
      )}
    </fieldset>
  );
}

/** One plug of a recorded cable: what it is, where it goes, and the adapter that was found between the two. */
function RecordedPlugRow({
  plug,
  name,
  inlet,
  inlets,
  harm,
  disabled,
  onPut,
}: {
  readonly plug: RecordedPlug;
  /** Such as `plug 1 of cable A`. */
  readonly name: string;
  readonly inlet: Inlet | null;
  /** Inlets that it can go to: its own, and those that no plug goes to. */
  readonly inlets: readonly Inlet[];
  /** What is wrong with its adapter. */
  readonly harm: FoundHarm | null;
  readonly disabled: boolean;
  readonly onPut: (plug: RecordedPlug) => void;
}) {
  const { through } = plug;
  const wrong = inlet !== null && through === undefined && !plugServes(plug.kind, inlet.kind);
  return (
    <>
      <div className={styles.plugRow}>
        <Select
          className={looks.cellInput}
          aria-label={`Kind of ${name}`}
          value={plug.kind}
          disabled={disabled}
          onChange={(kind) => onPut({ ...plug, kind })}
          options={plugOptions}
        />
        <Select
          className={looks.cellInput}
          aria-label={`Inlet of ${name}`}
          aria-invalid={wrong}
          value={plug.inletId ?? ''}
          disabled={disabled}
          onChange={(picked) =>
            // What hangs free has no adapter to an inlet.
            onPut(picked === '' ? { kind: plug.kind, inletId: null } : { ...plug, inletId: picked })
          }
          options={[{ value: '', label: 'free' }, ...inlets.map(({ id, label }) => ({ value: id, label }))]}
        />
        {wrong && (
          <span className={verdictLook('fail')} title="This plug does not fit this inlet">
            no fit
          </span>
        )}
        {inlet !== null && through === undefined && (
          <Button
            icon={signs.add}
            type="link"
            className={styles.adapter ?? ''}
            disabled={disabled}
            aria-label={`An adapter was found at ${name}`}
            onClick={() => onPut({ ...plug, through: { gives: usualPlug[inlet.kind], legs: 1, moulded: false } })}
          >
            adapter
          </Button>
        )}
      </div>
      {through !== undefined && (
        <FoundAdapter plug={plug} through={through} name={name} harm={harm} disabled={disabled} onPut={onPut} />
      )}
    </>
  );
}

/** The plugs of a recorded cable, and one more or one fewer. */
export function RecordedPlugs({
  cable: { plugs, label },
  inlets,
  served,
  harms,
  disabled,
  onPut,
}: {
  readonly cable: RecordedCable;
  readonly inlets: readonly Inlet[];
  /** Inlets that a recorded plug goes to. */
  readonly served: ReadonlySet<string>;
  readonly harms: ReadonlyMap<string, FoundHarm>;
  readonly disabled: boolean;
  readonly onPut: (plugs: readonly RecordedPlug[]) => void;
}) {
  return (
    <>
      {plugs.map((plug, index) => (
        <RecordedPlugRow
          key={index}
          plug={plug}
          name={`plug ${index + 1} of cable ${label}`}
          inlet={inlets.find(({ id }) => id === plug.inletId) ?? null}
          inlets={inlets.filter(({ id }) => id === plug.inletId || !served.has(id))}
          harm={harms.get(plug.inletId ?? '') ?? null}
          disabled={disabled}
          onPut={(changed) => onPut(plugs.map((other, position) => (position === index ? changed : other)))}
        />
      ))}
      <Button
        icon={signs.add}
        type="link"
        disabled={disabled || plugs.length >= 8}
        onClick={() => onPut([...plugs, { kind: plugs.at(-1)?.kind ?? 'sata', inletId: null }])}
      >
        one more plug
      </Button>
      {plugs.length > 1 && (
        <Button type="link" disabled={disabled} onClick={() => onPut(plugs.slice(0, -1))}>
          one fewer
        </Button>
      )}
    </>
  );
}
