import type { InletRow } from '@fairwatt/core';

export interface DrawnSocket { readonly key: string; readonly label: string; readonly used: boolean }
const rowHeight = 34;
const states = { seated: { mark: '✓', word: 'seated' }, 'to-seat': { mark: '', word: 'to seat' }, open: { mark: '!', word: 'no cable' } } as const;

/** Sockets of the supply, cables as wires, inlets of the machine. State is told by mark, line and word. */
export function CableDrawing({ title, rows, sockets, current, onPick }: { readonly title: string; readonly rows: readonly InletRow[]; readonly sockets: readonly DrawnSocket[]; readonly current: string | null; readonly onPick: (inletId: string) => void }) {
  const width = 820;
  const height = Math.max(rows.length, sockets.length) * rowHeight + 40;
  const ySocket = (index: number) => 40 + (index + 0.5) * ((height - 50) / Math.max(1, sockets.length));
  const yInlet = (index: number) => 40 + (index + 0.5) * ((height - 50) / Math.max(1, rows.length));
  const keyOf = (row: InletRow) => (row.socketLabel ?? `fixed ${row.cableCode ?? ''}`);
  return (
    <svg viewBox={`0 0 ${width} ${height}`} role="group" aria-label={title}>
      <text x={0} y={16} fontSize={13.5} fontWeight={600} style={{ fill: 'var(--ink-2)' }}>{title}</text>
      <text x={width} y={16} fontSize={13.5} fontWeight={600} textAnchor="end" style={{ fill: 'var(--ink-2)' }}>Inlets of the machine</text>
      <rect x={0.5} y={28} width={196} height={height - 32} style={{ fill: 'var(--side)', stroke: 'var(--ink)' }} />
      {sockets.map((socket, index) => (
        <g key={socket.key} opacity={socket.used ? 1 : 0.55}>
          <text x={128} y={ySocket(index) + 5} fontSize={13} textAnchor="end">{socket.label}</text>
          <rect x={136} y={ySocket(index) - 11} width={56} height={22} rx={2} style={{ fill: 'var(--sheet)', stroke: 'var(--ink)' }} strokeDasharray={socket.used ? undefined : '3 3'} />
          {[0, 1, 2, 3].map((slot) => <rect key={slot} x={143 + slot * 12} y={ySocket(index) - 5} width={6} height={10} style={{ fill: socket.used ? 'var(--ink)' : 'var(--line)' }} />)}
        </g>
      ))}
      {rows.map((row, index) => {
        const from = sockets.findIndex((socket) => socket.key === keyOf(row));
        const y = yInlet(index);
        const lit = row.inletId === current;
        const colour = row.state === 'seated' ? 'var(--ink)' : row.state === 'open' ? 'var(--fail)' : 'var(--action)';
        const start = from < 0 ? y : ySocket(from);
        return (
          <g key={row.inletId} role="button" tabIndex={0} aria-label={`${row.label}: ${states[row.state].word}${row.cableCode === null ? '' : `, cable ${row.cableCode}`}`} aria-current={lit} style={{ cursor: 'pointer' }} onClick={() => onPick(row.inletId)} onKeyDown={(event) => { if (event.key === 'Enter' || event.key === ' ') { event.preventDefault(); onPick(row.inletId); } }}>
            {from >= 0 ? <path d={`M192 ${start}C330 ${start} 400 ${y} 520 ${y}`} fill="none" style={{ stroke: colour }} strokeWidth={lit ? 6 : 3.5} strokeDasharray={row.state === 'seated' ? undefined : '9 6'} /> : <path d={`M450 ${y}H520`} style={{ stroke: colour }} strokeWidth={3.5} strokeDasharray="2 5" />}
            <rect x={520} y={y - 13} width={44} height={26} rx={2} style={{ fill: row.state === 'seated' ? 'var(--ink)' : 'var(--sheet)', stroke: colour }} strokeWidth={lit ? 3.5 : 2} />
            <text x={542} y={y + 6} fontSize={16} fontWeight={700} textAnchor="middle" style={{ fill: row.state === 'seated' ? 'var(--sheet)' : colour }}>{states[row.state].mark}</text>
            <text x={576} y={y + 5} fontSize={15} fontWeight={lit ? 700 : 600} style={{ fill: row.state === 'open' ? 'var(--fail)' : 'var(--ink)' }}>{row.label.length > 22 ? `${row.label.slice(0, 21)}…` : row.label}</text>
            <text x={width} y={y + 5} fontSize={13.5} textAnchor="end" style={{ fill: row.state === 'open' ? 'var(--fail)' : 'var(--ink-2)' }}>{states[row.state].word}</text>
          </g>
        );
      })}
      {sockets.map((socket, index) => {
        const code = rows.find((row) => keyOf(row) === socket.key)?.cableCode;
        return code == null ? null : <g key={socket.key}><rect x={216} y={ySocket(index) - 10} width={44} height={20} style={{ fill: 'var(--manila)' }} /><text className="fig" x={238} y={ySocket(index) + 5} fontSize={13} textAnchor="middle" style={{ fill: 'var(--on-manila)' }}>{code}</text></g>;
      })}
    </svg>
  );
}
