import { endsNamed, type CableKit, type InletRow, type Job } from '@fairwatt/core';

/**
 * Where cables come from by the record, and of a kept supply also those that are new; nothing is known of the others.
 */
export function recordedSockets(job: Job, rows: readonly InletRow[], kit: CableKit | null) {
  const from = (socketLabel: string | null, cable: string): readonly string[] =>
    socketLabel === null || socketLabel === '' ? [`fixed ${cable}`] : endsNamed(kit, socketLabel);
  const recorded = job.cables.flatMap(({ label, socketLabel, plugs }) =>
    from(socketLabel, label).map((socket) => ({
      label: socket,
      used: plugs.some(({ inletId }) => inletId !== null),
    })),
  );
  const fresh = rows
    .flatMap((row) => [row, ...row.legs])
    .flatMap(({ kitCableId, cableCode, socketLabel }) =>
      kitCableId === null || cableCode === null
        ? []
        : from(socketLabel, cableCode).map((label) => ({ label, used: true })),
    );
  const all = [...recorded, ...fresh];
  // In the order of the panel, where it is known.
  const panel = kit?.sockets.map(({ label }) => label) ?? [];
  const labels = new Set(all.map(({ label }) => label));
  const ordered = [...panel.filter((label) => labels.has(label)), ...labels];
  return [...new Set(ordered)].map((label) => ({
    label,
    used: all.some((item) => item.label === label && item.used),
  }));
}
