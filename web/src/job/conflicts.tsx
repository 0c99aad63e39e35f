import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { outbox, type OutboxItem } from '../offline/outbox.ts';
import { useDesk } from './job-context.ts';

const shown = (value: unknown) =>
  value === null || value === undefined || value === ''
    ? 'nothing'
    : Array.isArray(value)
      ? value.join(', ')
      : typeof value === 'string' || typeof value === 'number'
        ? String(value)
        : JSON.stringify(value);
const fieldNames: Readonly<Record<string, string>> = {
  title: 'Machine',
  client: 'Client',
  words: "In the client's words",
  button: 'Pressing the button',
  course: 'How it has gone',
  surroundings: 'Surroundings',
  upgrade: 'Planned upgrade',
  watch: 'What to watch',
  leftInBag: 'Left in the bag',
  depthMillimetres: 'Room for the supply',
  machineYears: 'Age of the machine',
  supplyYears: 'Age of the supply',
};

function mine(item: OutboxItem): Record<string, unknown> {
  return item.act.kind === 'edit-sheet' ? item.act.changes : {};
}

/** Changes that the server would not take: what they say, what you typed, and the choice. Nothing is dropped unasked. */
export function Conflicts() {
  const { code, job } = useDesk();
  const dispatch = useAppDispatch();
  const refused = useAppSelector((state) => state.outbox.items).filter(
    (item) => item.code === code && item.state === 'refused',
  );
  return refused.map((item) => (
    <div key={item.id} className="notice bad" role="alert" data-conflict>
      <span className="mark">Not saved</span>
      <span style={{ flex: 1 }}>
        {item.refusal?.theirs == null
          ? item.refusal?.title
          : Object.entries(item.refusal.theirs).map(([field, theirs]) => (
              <span key={field} style={{ display: 'block' }}>
                <strong>{fieldNames[field] ?? field}</strong> was changed meanwhile. Theirs: “{shown(theirs)}”. Yours: “
                {shown(mine(item)[field])}”.
              </span>
            ))}
      </span>
      {item.refusal?.stale === true && item.refusal.current !== null && (
        <button
          type="button"
          className="secondary"
          onClick={() =>
            dispatch(
              outbox.waitAgain({
                id: item.id,
                basedOn: item.act.kind === 'edit-sheet' ? job.sheet.version : (item.refusal?.current ?? 0),
              }),
            )
          }
        >
          Use mine
        </button>
      )}
      <button type="button" className="secondary" onClick={() => dispatch(outbox.discard(item.id))}>
        {item.refusal?.theirs == null ? 'Discard' : 'Keep theirs'}
      </button>
    </div>
  ));
}
