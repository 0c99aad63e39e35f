import { useState } from 'react';
import { Button, Checkbox, Input } from 'antd';
import {
  cableFamilies,
  familyText,
  signalText,
  type CableFamily,
  type SocketSignal,
  type SupplyModel,
} from '@fairwatt/core';
import { pinoutSchema, type Pinout } from '@fairwatt/contract';
import { problemOf, useChangePinoutMutation } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';

const signals = Object.keys(signalText) as SocketSignal[];
const pinsText = (pins: readonly (SocketSignal | null)[]) => pins.map((pin) => pin ?? '?').join(' ');
const readPins = (text: string) =>
  text
    .trim()
    .split(/[\s,]+/)
    .filter((pin) => pin !== '')
    .map((pin) => (pin === '?' ? null : pin.toUpperCase()));

/**
 * What the sockets of a kind of supply give, pin by pin. No standard covers them: each is measured or read from its
 * maker.
 */
export function PinoutsPanel({
  pinouts,
  supplies,
}: {
  readonly pinouts: readonly Pinout[];
  readonly supplies: readonly SupplyModel[];
}) {
  const technician = useAppSelector((state) => state.session.technician);
  const [change, changing] = useChangePinoutMutation();
  const [editing, setEditing] = useState<Pinout | null>(null);
  const [sockets, setSockets] = useState<Readonly<Partial<Record<CableFamily, string>>>>({});
  const [name, setName] = useState('');
  const [of, setOf] = useState<readonly string[]>([]);
  const [told, setTold] = useState<readonly string[]>([]);
  function open(pinout: Pinout): void {
    setEditing(pinout);
    setName(pinout.name);
    setOf(pinout.supplies);
    setTold([]);
    setSockets(Object.fromEntries(pinout.sockets.map((socket) => [socket.family, pinsText(socket.pins)])));
  }
  async function save(): Promise<void> {
    if (editing === null) return;
    const read = pinoutSchema.safeParse({
      ...editing,
      name: name.trim(),
      supplies: of,
      sockets: cableFamilies.flatMap((family) => {
        const pins = readPins(sockets[family] ?? '');
        return pins.length === 0 ? [] : [{ family, pins }];
      }),
    });
    if (!read.success) {
      setTold(read.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`));
      return;
    }
    const answer = await change({ by: technician ?? '', basedOn: editing.version, pinout: read.data });
    if (answer.error === undefined) setEditing(null);
    else setTold([problemOf(answer.error).title]);
  }
  const startNew = () =>
    open({ id: `back-${crypto.randomUUID().slice(0, 8)}`, version: 0, name: '', sockets: [], supplies: [] });
  return (
    <div className="columns">
      <div>
        {pinouts.length === 0 && (
          <Empty title="No sockets are known yet">
            Measure a socket pin by pin, with nothing plugged in, and enter what each pin gives.
          </Empty>
        )}
        <ul className="bag-list">
          {pinouts.map((pinout) => (
            <li key={pinout.id}>
              <Button
                type="text"
                className="plain"
                aria-pressed={editing?.id === pinout.id}
                onClick={() => open(pinout)}
              >
                <span className="what">
                  {pinout.name}
                  <span className="quiet block-note">
                    {pinout.sockets
                      .map(
                        (socket) =>
                          `${familyText[socket.family]}: ${socket.pins.length} ` +
                          `pins${socket.pins.includes(null) ? ', some not known' : ''}`,
                      )
                      .join('; ')}
                  </span>
                  <span className="quiet block-note">{pinout.supplies.length} supplies</span>
                </span>
              </Button>
            </li>
          ))}
        </ul>
        <Button style={{ marginTop: 10 }} disabled={technician === null} onClick={startNew}>
          Enter another kind of supply
        </Button>
      </div>
      {editing !== null && (
        <form
          aria-label="Sockets of a kind of supply"
          onSubmit={(event) => {
            event.preventDefault();
            void save();
          }}
        >
          <label className="field">
            <span className="name">Name</span>
            <Input value={name} maxLength={60} onChange={(event) => setName(event.target.value)} />
          </label>
          {cableFamilies.map((family) => (
            <label key={family} className="field" style={{ marginTop: 8 }}>
              <span className="name">Socket for {familyText[family]} cables, pin 1 first</span>
              <Input
                className="fig"
                value={sockets[family] ?? ''}
                placeholder="12 G 12 G ?"
                onChange={(event) => setSockets({ ...sockets, [family]: event.target.value })}
              />
            </label>
          ))}
          <p className="quiet" style={{ marginTop: 6 }}>
            {signals.map((signal) => `${signal} ${signalText[signal]}`).join(', ')}; “?” where nobody measured. Leave a
            socket empty that it does not have.
          </p>
          <fieldset className="ranges" style={{ marginTop: 10 }}>
            <legend className="label">Supplies with these sockets</legend>
            <div className="supply-ticks">
              {supplies.map((model) => (
                <Checkbox
                  key={model.id}
                  className="tick"
                  checked={of.includes(model.id)}
                  onChange={(event) =>
                    setOf(event.target.checked ? [...of, model.id] : of.filter((id) => id !== model.id))
                  }
                >
                  {model.name}
                </Checkbox>
              ))}
            </div>
          </fieldset>
          {told.length > 0 && (
            <div className="error-text" role="alert">
              {told.map((line) => (
                <div key={line}>{line}</div>
              ))}
            </div>
          )}
          <div className="row-actions" style={{ marginTop: 12 }}>
            <Button className="strong" htmlType="submit" disabled={technician === null || changing.isLoading}>
              Save
            </Button>
            <Button type="link" onClick={() => setEditing(null)}>
              back
            </Button>
          </div>
        </form>
      )}
    </div>
  );
}
