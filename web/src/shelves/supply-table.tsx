import { Button, Table, type TableColumnsType } from 'antd';
import { familyText, moneyText, plugName, twelveOutputsText } from '@fairwatt/core';
import type { SupplySummary } from '@fairwatt/contract';
import { problemOf, useSupplyQuery } from '../app/api.ts';
import { Waiting } from '../controls/waiting.tsx';
import { looks } from '../looks/looks.ts';
import { signs } from '../controls/signs.tsx';

/** From this many rows on only those in sight are drawn. */
const virtualFrom = 100;
/** What stands above the rows of a long list, in pixels. */
const aboveRows = 190;

interface Acts {
  readonly open: string | null;
  readonly onOpen: (id: string) => void;
  readonly onEdit: (model: SupplySummary, duplicate: boolean) => void;
}

const byText = (of: (model: SupplySummary) => string) => (a: SupplySummary, b: SupplySummary) =>
  of(a).localeCompare(of(b));
const byFigure = (of: (model: SupplySummary) => number) => (a: SupplySummary, b: SupplySummary) => of(a) - of(b);
const filterOf = (supplies: readonly SupplySummary[], of: (model: SupplySummary) => string) =>
  [...new Set(supplies.map(of))].sort().map((value) => ({ text: value, value }));

/** What can be done with one of them. */
function RowActs({
  model,
  isOpen,
  onOpen,
  onEdit,
}: Pick<Acts, 'onOpen' | 'onEdit'> & { readonly model: SupplySummary; readonly isOpen: boolean }) {
  return (
    <span className={looks.nowrap}>
      <Button type="link" aria-expanded={isOpen} onClick={() => onOpen(model.id)}>
        cables
      </Button>
      <Button icon={signs.change} type="link" aria-label={`Change ${model.name}`} onClick={() => onEdit(model, false)}>
        change
      </Button>
      <Button icon={signs.copy} type="link" aria-label={`Duplicate ${model.name}`} onClick={() => onEdit(model, true)}>
        duplicate
      </Button>
    </span>
  );
}

function columnsOf(
  supplies: readonly SupplySummary[],
  { open, onOpen, onEdit }: Acts,
): TableColumnsType<SupplySummary> {
  return [
    {
      title: 'Supply',
      width: 200,
      sorter: byText((model) => model.name),
      render: (_, model) => <strong>{model.name}</strong>,
    },
    {
      title: 'Rating',
      className: looks.num,
      width: 96,
      sorter: byFigure((model) => model.label.ratingWatts),
      render: (_, model) => `${model.label.ratingWatts} W`,
    },
    {
      title: 'Shape',
      width: 92,
      filters: filterOf(supplies, (model) => model.label.shape),
      onFilter: (value, model) => model.label.shape === value,
      render: (_, model) => model.label.shape,
    },
    { title: 'Guide', width: 66, render: (_, model) => model.label.guide },
    {
      title: 'Grade',
      width: 92,
      filters: filterOf(supplies, (model) => model.label.grade),
      onFilter: (value, model) => model.label.grade === value,
      render: (_, model) => model.label.grade,
    },
    { title: '+12 V outputs', className: looks.fig, width: 138, render: (_, model) => twelveOutputsText(model) },
    {
      title: 'Depth',
      className: looks.num,
      width: 92,
      sorter: byFigure((model) => model.depthMillimetres),
      render: (_, model) => `${model.depthMillimetres} mm`,
    },
    {
      title: 'Price',
      className: looks.num,
      width: 118,
      sorter: byFigure((model) => model.price.minor),
      render: (_, model) => moneyText(model.price.minor, model.price.currency),
    },
    {
      title: 'Free',
      className: looks.num,
      width: 76,
      sorter: byFigure((model) => model.onShelf),
      render: (_, model) => model.onShelf,
    },
    {
      title: <span className={looks.visuallyHidden}>Acts</span>,
      width: 200,
      render: (_, model) => <RowActs model={model} isOpen={open === model.id} onOpen={onOpen} onEdit={onEdit} />,
    },
  ];
}

/** Sockets and cables of one supply, fetched when it is opened. */
function Kit({ id, name }: { readonly id: string; readonly name: string }) {
  const { data: model, error } = useSupplyQuery(id);
  if (model === undefined)
    return error === undefined ? (
      <Waiting>Fetching the cables of {name} …</Waiting>
    ) : (
      <p role="alert">{problemOf(error).title}</p>
    );
  return (
    <>
      <p>
        <strong>Sockets:</strong>{' '}
        {model.kit.sockets.length === 0
          ? 'none, all cables fixed'
          : model.kit.sockets.map((socket) => socket.label).join(' · ')}
      </p>
      <ul>
        {model.kit.cables.map((cable) => (
          <li key={cable.id}>
            <span className={looks.fig}>{cable.count} ×</span> {familyText[cable.family]},{' '}
            {cable.fixed ? 'fixed' : 'modular'}, {cable.gauge} AWG:{' '}
            {cable.plugs.map((plug) => `${plugName[plug.kind]} at ${plug.millimetres} mm`).join(', ')}
          </li>
        ))}
      </ul>
    </>
  );
}

/**
 * The models of the shop, sorted and filtered at their heads; however many there are, only those in sight are drawn.
 */
export default function SupplyTable({ supplies, ...acts }: Acts & { readonly supplies: readonly SupplySummary[] }) {
  const long = supplies.length > virtualFrom;
  return (
    <Table<SupplySummary>
      className={looks.sheetTable}
      size="small"
      rowKey="id"
      aria-label="Supplies"
      columns={columnsOf(supplies, acts)}
      dataSource={supplies}
      pagination={false}
      showSorterTooltip={false}
      virtual={long}
      scroll={long ? { x: 1180, y: window.innerHeight - aboveRows } : { x: 'max-content' }}
      onRow={(model) => ({ 'data-model': model.id }) as object}
      expandable={{
        showExpandColumn: false,
        expandedRowKeys: acts.open === null ? [] : [acts.open],
        expandedRowRender: ({ id, name }) => <Kit id={id} name={name} />,
      }}
    />
  );
}
