import type { CableKit, InletRow, Job } from '@fairwatt/core';

/**
 * Where cables come from by the record, and of a kept supply also those that are new; nothing is known of the others.
 */
export function recordedSockets(job: Job, rows: readonly InletRow[], kit: CableKit | null) {
  const from = (socketLabel: string | null, cable: string) =>
    socketLabel === null || socketLabel === '' ? `fixed ${cable}` : socketLabel;
  const recorded = job.cables.map(({ label, socketLabel, plugs }) => ({
    label: from(socketLabel, label),
    cableCode: null,
    used: plugs.some(({ inletId }) => inletId !== null),
  }));
  const fresh = rows
    .flatMap((row) => [row, ...row.legs])
    .flatMap(({ kitCableId, cableCode, socketLabel }) =>
      kitCableId === null || cableCode === null ? [] : [{ label: from(socketLabel, cableCode), cableCode, used: true }],
    );
  const all = [...recorded, ...fresh];
  // In the order of the panel, where it is known.
  const panel = kit?.sockets.map(({ label }) => label) ?? [];
  const labels = new Set(all.map(({ label }) => label));
  const ordered = [...panel.filter((label) => labels.has(label)), ...labels];
  return [...new Set(ordered)].map((label) => {
    const here = all.filter((item) => item.label === label);
    return {
      label,
      cableCode: here.find(({ cableCode }) => cableCode !== null)?.cableCode ?? null,
      used: here.some(({ used }) => used),
    };
  });
}
