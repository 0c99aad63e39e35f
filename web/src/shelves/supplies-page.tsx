import { useState } from 'react';
import { moneyText, type SupplyModel } from '@fairwatt/core';
import { problemOf, useSuppliesQuery } from '../app/api.ts';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { ShelfImport } from './shelf-import.tsx';

/** The supplies the shop can get, with their sockets and cable kits. */
export default function SuppliesPage() {
  const supplies = useSuppliesQuery();
  const [search, setSearch] = useState('');
  const [open, setOpen] = useState<string | null>(null);
  const shown = (supplies.data ?? []).filter((model) => `${model.name} ${model.label.shape} ${model.label.ratingWatts}`.toLowerCase().includes(search.trim().toLowerCase()));
  return (
    <div className="page">
      <div className="page-head"><h1>Supplies</h1><span className="quiet">{supplies.data?.length ?? 0} models, {(supplies.data ?? []).reduce((sum, model) => sum + model.onShelf, 0)} on the shelf</span>
        <label className="field" style={{ width: 240 }}><span className="visually-hidden">Find a supply</span><input placeholder="Name, shape or watts" value={search} onChange={(event) => setSearch(event.target.value)} /></label>
        <ShelfImport kind="supplies" />
      </div>
      {supplies.isError && supplies.data === undefined && <Empty title={problemOf(supplies.error).title} />}
      {supplies.isLoading && <Waiting>Fetching the supplies …</Waiting>}
      {supplies.data !== undefined && shown.length === 0 && <Empty title={search === '' ? 'No supplies yet' : 'Nothing found'}>{search === '' ? 'Import a supplies file; demo/supplies.json shows how one looks.' : 'Look for a name, a shape or watts.'}</Empty>}
      {shown.length > 0 && (
        <table className="grid">
          <thead><tr><th>Supply</th><th className="num">Rating</th><th>Shape</th><th>Guide</th><th>Grade</th><th>+12 V outputs</th><th className="num">Depth</th><th className="num">Price</th><th className="num">Shelf</th><th /></tr></thead>
          <tbody>{shown.map((model) => (
            <SupplyRow key={model.id} model={model} open={open === model.id} onOpen={() => setOpen(open === model.id ? null : model.id)} />))}
          </tbody>
        </table>)}
    </div>
  );
}

type Model = SupplyModel;
function SupplyRow({ model, open, onOpen }: { readonly model: Model; readonly open: boolean; readonly onOpen: () => void }) {
  const twelve = model.label.rails.filter((rail) => rail.rail === '+12');
  return (
    <>
      <tr>
        <td style={{ fontWeight: 600 }}>{model.name}</td><td className="num">{model.label.ratingWatts} W</td><td>{model.label.shape}</td><td>{model.label.guide}</td><td>{model.label.grade}</td>
        <td className="fig">{twelve.map((rail) => `${rail.amps} A`).join(' + ')}</td><td className="num">{model.depthMillimetres} mm</td><td className="num">{moneyText(model.price.minor, model.price.currency)}</td><td className="num">{model.onShelf}</td>
        <td><button type="button" className="link" aria-expanded={open} onClick={onOpen}>cables</button></td>
      </tr>
      {open && <tr><td colSpan={10}>
        <p><strong>Sockets:</strong> {model.kit.sockets.length === 0 ? 'none, all cables fixed' : model.kit.sockets.map((socket) => socket.label).join(' · ')}</p>
        <ul>{model.kit.cables.map((cable) => <li key={cable.id}><span className="fig">{cable.count} ×</span> {cable.family}, {cable.fixed ? 'fixed' : 'modular'}, {cable.gauge} AWG: {cable.plugs.map((plug) => `${plug.kind} at ${plug.millimetres} mm`).join(', ')}</li>)}</ul>
      </td></tr>}
    </>
  );
}
