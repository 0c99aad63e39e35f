import { inletFamily, limits, plugServes, socketTakes, type InletKind, type SocketKind } from '../standards/index.ts';
import type { Random } from '../simulate/index.ts';
import type { CableKit, InletToServe, KitCable } from './index.ts';

const pickOf = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

/** A random machine and a random kit of the usual kind; some cannot be served. */
export function randomProblem(random: Random): { readonly kit: CableKit; readonly inlets: readonly InletToServe[] } {
  const inlets: InletToServe[] = [];
  const add = (kind: InletKind, optional: boolean, amps12: number, amps5 = 0) => inlets.push({ id: `i${inlets.length}`, kind, optional, reachMillimetres: 200 + Math.floor(random() * 6) * 100, amps12, amps5, amps33: 0 });
  add(random() < 0.9 ? 'main-24' : 'main-20', false, 4, 4);
  add(random() < 0.8 ? 'cpu-8' : 'cpu-4', false, 12);
  if (random() < 0.5) add(random() < 0.5 ? 'cpu-8' : 'cpu-4', true, 0);
  const cards = Math.floor(random() * 4);
  for (let card = 0; card < cards; card += 1) add(pickOf(random, ['card-8', 'card-8', 'card-6']), random() < 0.15, pickOf(random, [5, 8, 10, 12.5]));
  if (random() < 0.2) add('card-16', false, 24);
  const drives = Math.floor(random() * 6);
  for (let drive = 0; drive < drives; drive += 1) add(pickOf(random, ['sata', 'sata', 'sata', 'peripheral-4']), random() < 0.2, pickOf(random, [0.4, 2.2, 2.6]), pickOf(random, [0.7, 1.2, 3]));
  const modular = random() < 0.7;
  const at = () => 300 + Math.floor(random() * 6) * 100;
  const cables: KitCable[] = [{ id: 'main', family: 'main', fixed: random() < 0.5, count: 1, gauge: 18, plugs: [{ kind: random() < 0.7 ? 'main-20+4' : 'main-24', millimetres: at() + 100 }] }];
  const cable = (id: string, family: KitCable['family'], count: number, plugs: KitCable['plugs']) => { if (count > 0 && plugs.length > 0) cables.push({ id, family, fixed: !modular || random() < 0.1, count, gauge: 18, plugs }); };
  const chain = (kinds: readonly KitCable['plugs'][number]['kind'][]) => { let millimetres = at() - 100; return kinds.map((kind) => { millimetres += 100 + Math.floor(random() * 2) * 50; return { kind, millimetres }; }); };
  cable('cpu', 'cpu', 1 + Math.floor(random() * 2), chain([random() < 0.8 ? 'cpu-4+4' : 'cpu-8']));
  cable('card-two', 'card', Math.floor(random() * 3), chain(['card-6+2', 'card-6+2']));
  cable('card-one', 'card', Math.floor(random() * 3), chain([random() < 0.7 ? 'card-6+2' : 'card-6']));
  cable('sixteen', 'card-16', random() < 0.3 ? 1 : 0, chain(['card-16']));
  cable('sata', 'drive', Math.floor(random() * 3), chain(['sata', 'sata', 'sata'].slice(0, 1 + Math.floor(random() * 3)) as 'sata'[]));
  cable('old', 'drive', Math.floor(random() * 2), chain(['peripheral-4', 'sata']));
  const kinds: SocketKind[] = ['main', ...Array.from({ length: Math.floor(random() * 3) }, () => 'cpu' as const), ...Array.from({ length: Math.floor(random() * 4) }, () => (random() < 0.5 ? 'cpu-card' as const : 'card' as const)), ...(random() < 0.3 ? ['card-16' as const] : []), ...Array.from({ length: Math.floor(random() * 4) }, () => 'drive' as const)];
  return { inlets, kit: { cables, sockets: kinds.map((kind, index) => ({ kind, label: `${kind} ${index}` })) } };
}

/** Weights that keep the linear part of the order: open inlets, optional ones, shared graphics cables, cables. */
export const planWeights = { openRequired: 1_000_000, openOptional: 10_000, sharing: 100, cables: 1 } as const;

/**
 * The plan as a mixed integer programme in LP format. Binaries: x (inlet on plug), y (piece used), s (piece in socket), m
 * (piece with several inlets). The objective leaves out its constant, which is returned beside it.
 */
export function planProgramme(kit: CableKit, inlets: readonly InletToServe[]): { readonly lp: string; readonly constant: number } {
  const pieces = kit.cables.flatMap((cable) => Array.from({ length: cable.count }, () => cable));
  const weights = new Map<string, number>();
  const weigh = (weight: number, name: string) => weights.set(name, (weights.get(name) ?? 0) + weight);
  const rows: string[] = [];
  const binaries: string[] = [];
  let constant = 0;
  const onInlet = inlets.map((): string[] => []);
  pieces.forEach((piece, p) => {
    const own: { name: string; inlet: InletToServe }[] = [];
    piece.plugs.forEach((plug, k) => {
      const onPlug: string[] = [];
      inlets.forEach((inlet, i) => {
        if (inletFamily(inlet.kind) !== piece.family || !plugServes(plug.kind, inlet.kind) || plug.millimetres < inlet.reachMillimetres) return;
        const name = `x${i}_${p}_${k}`;
        binaries.push(name);
        own.push({ name, inlet });
        onPlug.push(name);
        onInlet[i]!.push(name);
      });
      if (onPlug.length > 1) rows.push(`${onPlug.map((name) => `+ ${name}`).join(' ')} <= 1`);
    });
    const y = `y${p}`;
    binaries.push(y);
    const graphics = piece.family === 'card' || piece.family === 'card-16';
    weigh(planWeights.cables - (graphics ? planWeights.sharing : 0), y);
    if (graphics) for (const { name } of own) weigh(planWeights.sharing, name);
    if (own.length === 0) { rows.push(`${y} = 0`); return; }
    for (const { name } of own) rows.push(`${name} - ${y} <= 0`);
    rows.push(`${y} ${own.map(({ name }) => `- ${name}`).join(' ')} <= 0`);
    const all = own.map(({ name }) => `+ ${name}`).join(' ');
    if (piece.family === 'main') rows.push(`${all} <= 1`);
    const capped: readonly (readonly ['amps12' | 'amps5' | 'amps33', number])[] = piece.family === 'drive' ? [['amps12', limits.driveChainAmps], ['amps5', limits.driveChainAmps], ['amps33', limits.driveChainAmps]] : graphics ? [['amps12', limits.sharedCardCableWatts / 12]] : [];
    if (capped.length > 0 && own.length > 1) {
      const m = `m${p}`;
      binaries.push(m);
      rows.push(`${all} - ${inlets.length} ${m} <= 1`);
      for (const [key, limit] of capped) {
        const sum = own.filter(({ inlet }) => inlet[key] > 0).map(({ name, inlet }) => `+ ${inlet[key]} ${name}`).join(' ');
        if (sum !== '') rows.push(`${sum} + 1000 ${m} <= ${limit + 1000}`);
      }
    }
    if (!piece.fixed) {
      const places = kit.sockets.flatMap((socket, index) => (socketTakes(socket.kind, piece.family) ? [`s${p}_${index}`] : []));
      binaries.push(...places);
      rows.push(places.length === 0 ? `${y} = 0` : `${places.map((name) => `+ ${name}`).join(' ')} - ${y} = 0`);
    }
  });
  kit.sockets.forEach((_, index) => {
    const there = binaries.filter((name) => name.startsWith('s') && name.endsWith(`_${index}`));
    if (there.length > 1) rows.push(`${there.map((name) => `+ ${name}`).join(' ')} <= 1`);
  });
  inlets.forEach((inlet, i) => {
    const weight = inlet.optional ? planWeights.openOptional : planWeights.openRequired;
    constant += weight;
    for (const name of onInlet[i]!) weigh(-weight, name);
    if (onInlet[i]!.length > 1) rows.push(`${onInlet[i]!.map((name) => `+ ${name}`).join(' ')} <= 1`);
  });
  // A programme needs a row and a variable even when there is nothing to decide.
  binaries.push('nothing');
  rows.push('nothing <= 1');
  return { constant, lp: `Minimize\n obj: ${weights.size === 0 ? '0 nothing' : [...weights].map(([name, weight]) => `${weight < 0 ? '-' : '+'} ${Math.abs(weight)} ${name}`).join('\n ')}\nSubject To\n${rows.map((row, index) => ` r${index}: ${row}`).join('\n')}\nBinary\n ${binaries.join('\n ')}\nEnd\n` };
}
