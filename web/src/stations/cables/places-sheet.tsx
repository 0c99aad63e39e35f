import { Button } from 'antd';
import {
  casePlaces,
  inletsToServe,
  partsAt,
  placeText,
  reachMillimetres,
  usualPlace,
  type CasePlace,
  type Inlet,
  type JobPart,
} from '@fairwatt/core';
import { FigureField, SelectField } from '../../controls/fields.tsx';
import { Sheet } from '../../controls/sheet.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';

const places = casePlaces.map((value) => ({ value, label: placeText[value] }));

/** What is put right of an inlet; what is undefined goes back to its usual. */
interface PlaceChanges {
  readonly place?: CasePlace | undefined;
  readonly wayMillimetres?: number | undefined;
}
interface PlaceLine {
  readonly part: JobPart;
  readonly inlet: Inlet;
  readonly place: CasePlace;
  /** The usual way there from the supply, in millimetres. */
  readonly usual: number;
}

/** Without what was set back to its usual. */
function withoutUsual({ place, wayMillimetres, ...rest }: Inlet & PlaceChanges): Inlet {
  return {
    ...rest,
    ...(place === undefined ? {} : { place }),
    ...(wayMillimetres === undefined ? {} : { wayMillimetres }),
  };
}

/** Puts an inlet's place or way right, its part otherwise as it is. */
function usePutPlace() {
  const { act } = useDesk();
  return ({ part: { version, ...part }, inlet }: PlaceLine, changes: PlaceChanges) => {
    const inlets = part.inlets.map((item) => (item.id === inlet.id ? withoutUsual({ ...item, ...changes }) : item));
    act({ kind: 'put-part', basedOn: version, part: { ...part, inlets } });
  };
}

function UsualWay({ line, onTake }: { readonly line: PlaceLine; readonly onTake: () => void }) {
  const { locked } = useDesk();
  const { inlet, usual } = line;
  return (
    <>
      {usual} mm
      {inlet.wayMillimetres !== undefined && (
        <>
          {' '}
          ·{' '}
          <Button type="link" disabled={locked} aria-label={`Usual way to ${inlet.label}`} onClick={onTake}>
            take the usual
          </Button>
        </>
      )}
    </>
  );
}

/** Where each inlet is in the case, and how long the way to it is. */
export function PlacesSheet() {
  const { job, locked } = useDesk();
  const put = usePutPlace();
  const { layout, staggeredStart: staggered } = job.sheet;
  const parts = partsAt(job.parts, 'planned');
  const ways = new Map(
    inletsToServe(parts, layout, { staggered }).map((inlet) => [inlet.id, inlet.reachMillimetres] as const),
  );
  const lines = parts.flatMap((part) =>
    part.inlets.map((inlet): PlaceLine => {
      const place = inlet.place ?? usualPlace(inlet.kind);
      return { part, inlet, place, usual: reachMillimetres(layout, inlet.kind, place) };
    }),
  );
  return (
    <Sheet
      label="Places and ways"
      rows={lines}
      rowKey={({ inlet }) => inlet.id}
      columns={[
        { head: 'Inlet', cell: ({ inlet }) => inlet.label },
        {
          head: 'Place',
          width: 200,
          cell: (line) => (
            <SelectField
              bare
              label={`Place of ${line.inlet.label}`}
              value={line.place}
              options={places}
              disabled={locked}
              onChange={(place) => put(line, { place: place === usualPlace(line.inlet.kind) ? undefined : place })}
            />
          ),
        },
        {
          head: 'Way (mm)',
          width: 150,
          cell: (line) => (
            <FigureField
              bare
              label={`Way to ${line.inlet.label} in millimetres`}
              value={ways.get(line.inlet.id) ?? null}
              most={3000}
              disabled={locked}
              onChange={(way) => {
                if (way !== null) put(line, { wayMillimetres: way === line.usual ? undefined : way });
              }}
            />
          ),
        },
        {
          head: 'Usual here',
          className: looks.quiet,
          cell: (line) => <UsualWay line={line} onTake={() => put(line, { wayMillimetres: undefined })} />,
        },
      ]}
    />
  );
}
