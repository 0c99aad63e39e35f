import {
  emptyLabel,
  newParts,
  partClass,
  shapesOfLayout,
  shapesWithSupply,
  usualShape,
  withFigures,
  withRating,
  type CaseLayout,
  type PartSource,
} from '../machine/index.ts';
import type { Act, Job, JobPart, SheetChanges } from '../job/index.ts';
import { nouns } from './nouns.ts';
import { asksSecondInlet } from './processor-class.ts';
import type { Said, SaidLeaving, SaidLike, SaidPart, SaidSupply, Understood } from './said.ts';
import { withoutWish } from './ways.ts';

/** What a line leaves open: it has to be said more exactly, or done by hand. */
export interface LeftOpen {
  readonly said: Said;
  readonly why: 'say-more' | 'none-there' | 'which-one';
}

export interface TakenIn {
  /** In the order in which they are to be done. */
  readonly acts: readonly Act[];
  readonly open: readonly LeftOpen[];
  /** What leaves and was not known to be there: it is taken in as what the machine came with. */
  readonly came: readonly SaidLeaving[];
}

/** A part that the shop knows with its own figures. */
export interface OwnPartSource extends PartSource {
  readonly id: string;
}

/**
 * The board that a line took for granted: a machine has one, and without it there is no main inlet. The class by the
 * processor that is named (bench practice: a second inlet for 170 W and more); null where a board is there or named, or
 * no processor is.
 */
export function boardForGranted(understood: Understood, parts: readonly Pick<JobPart, 'classId'>[]): string | null {
  const named = understood.said.filter((one): one is SaidPart => one.kind === 'part').map(({ classId }) => classId);
  const asked = understood.said.some((one) => one.kind === 'ask' && one.ask === 'board-plugs');
  if (asked || [...named, ...parts.map(({ classId }) => classId)].some((id) => partClass(id)?.group === 'board'))
    return null;
  const processor = named.find((id) => partClass(id)?.group === 'processor');
  if (processor === undefined) return null;
  if (processor === 'processor-old') return 'board-20';
  return asksSecondInlet(processor) ? 'board-88' : 'board';
}

function sourceOf(said: Pick<SaidPart, 'classId' | 'own' | 'watts'>, own: readonly OwnPartSource[]): PartSource {
  const source = own.find(({ id }) => id === said.own) ?? partClass(said.classId);
  if (source === undefined) throw new Error(`no class ${said.classId}`);
  const figures = said.watts === null ? source.figures : withFigures(source.figures, { likelyWatts: said.watts });
  return { classId: said.classId, name: source.name, inlets: source.inlets, figures };
}

/** A part that is to be made. */
interface Wanted extends Pick<JobPart, 'change' | 'classId' | 'quantity'> {
  readonly source: PartSource;
}

/** Classes of what may be meant where a part of one of them is named: a machine has one graphics card, whichever. */
const kindOf = ({ classIds, itself }: SaidLeaving): readonly string[] => [
  ...classIds,
  ...nouns.flatMap((noun) => (noun.classIds.includes(itself?.classId ?? '') ? noun.classIds : [])),
];

/** What leaves with words that say all of it, where neither machine nor line know anything of its kind. */
const cameAndGoes = (said: readonly Said[], parts: readonly Pick<JobPart, 'change' | 'classId'>[]) =>
  said.filter((one): one is SaidLeaving => {
    if (one.kind !== 'leaving' || one.itself === undefined) return false;
    const kind = kindOf(one);
    const named = said.filter((other): other is SaidPart => other.kind === 'part');
    return ![...parts, ...named].some(({ change, classId }) => change !== 'added' && kind.includes(classId));
  });

const changeOf = ({ replaced }: SaidLeaving) => (replaced ? ('replaced' as const) : ('removed' as const));

/** The part that is to be made of what was said; null where none is. */
function partOf(one: Said, came: readonly SaidLeaving[]): (Omit<SaidPart, 'change'> & Pick<Wanted, 'change'>) | null {
  if (one.kind === 'part') return one;
  return one.kind === 'leaving' && one.itself !== undefined && came.includes(one)
    ? { ...one.itself, change: changeOf(one) }
    : null;
}

/** What is to be made of one source: with inlets each is a part of its own, others are counted. */
const wantedFrom = (source: PartSource, quantity: number, change: Wanted['change']): Wanted[] =>
  source.inlets.length === 0
    ? [{ source, classId: source.classId, change, quantity }]
    : Array.from({ length: quantity }, () => ({ source, classId: source.classId, change, quantity: 1 }));

/**
 * What something is like: of the parts of its kind those that the machine came with, else those that come or that the
 * line names before it. Several where they differ, none where there is none.
 */
function modelsOf({ classIds }: SaidLike, parts: readonly JobPart[], before: readonly Wanted[]): PartSource[] {
  const ofKind = parts.filter(({ classId }) => classIds.includes(classId));
  const came = ofKind.filter(({ change }) => change !== 'added');
  const named = before.filter(({ classId }) => classIds.includes(classId)).map(({ source }) => source);
  const [models = []] = [came, ofKind, named].filter(({ length }) => length > 0);
  return [...new Map(models.map((part) => [drawnAs(part), part])).values()];
}

/** What makes two parts alike: class, inlets and what they draw, wherever the figures come from. */
function drawnAs({ classId, figures, inlets }: PartSource): string {
  const drawn = Object.entries({ ...figures, source: null }).sort(([a], [b]) => a.localeCompare(b));
  return JSON.stringify([classId, inlets.map(({ kind }) => kind), drawn]);
}

/** The parts that a line names, after the board that it took for granted, and what it leaves open of them. */
function wantedOf(
  said: readonly Said[],
  own: readonly OwnPartSource[],
  board: string | null,
  came: readonly SaidLeaving[],
  parts: readonly JobPart[],
) {
  const granted = board === null ? undefined : partClass(board);
  const wanted: Wanted[] = granted === undefined ? [] : wantedFrom({ ...granted, classId: granted.id }, 1, 'stays');
  const open: LeftOpen[] = [];
  for (const one of said) {
    const part = partOf(one, came);
    if (part !== null) wanted.push(...wantedFrom(sourceOf(part, own), part.quantity, part.change));
    if (one.kind !== 'like') continue;
    const [model, another] = modelsOf(one, parts, wanted);
    if (model === undefined || another !== undefined)
      open.push({ said: one, why: model === undefined ? 'none-there' : 'which-one' });
    else wanted.push(...wantedFrom(model, one.quantity, one.change));
  }
  return { wanted, open };
}

/** The parts that leave; null where it is not clear which ones. */
function leavingOf<P extends Pick<JobPart, 'change' | 'classId' | 'quantity'>>(
  said: SaidLeaving,
  parts: readonly P[],
): readonly P[] | null {
  const staying = parts.filter((part) => part.change === 'stays' && said.classIds.includes(part.classId));
  const count = staying.reduce((sum, part) => sum + part.quantity, 0);
  if (staying.length === 0 || said.quantity === count) return staying;
  if (said.quantity === null && (staying.length === 1 || /s$/i.test(said.noun))) return staying;
  // Of those that are alike it does not matter which ones go.
  const alike =
    new Set(staying.map(({ classId }) => classId)).size === 1 && staying.every(({ quantity }) => quantity === 1);
  return alike && said.quantity !== null && said.quantity < count ? staying.slice(0, said.quantity) : null;
}

/** What leaves, of the machine or of what the same line names; left open where it is not clear which one. */
function withLeaving(
  said: readonly Said[],
  parts: readonly JobPart[],
  named: readonly Wanted[],
  came: readonly SaidLeaving[],
) {
  const open: LeftOpen[] = [];
  const changed: Act[] = [];
  let wanted = named;
  for (const one of said) {
    if (one.kind === 'ask') open.push({ said: one, why: 'say-more' });
    if (one.kind !== 'leaving' || came.includes(one)) continue;
    const leaving = leavingOf<JobPart | Wanted>(one, [...parts, ...wanted]);
    if (leaving === null) open.push({ said: one, why: 'which-one' });
    else if (leaving.length === 0 && one.ifThere !== true) open.push({ said: one, why: 'none-there' });
    const change = changeOf(one);
    wanted = wanted.map((part) => (leaving?.includes(part) === true ? { ...part, change } : part));
    for (const part of parts.filter((other) => leaving?.includes(other) === true)) {
      const { version, ...rest } = part;
      changed.push({ kind: 'put-part', part: { ...rest, change }, basedOn: version });
    }
  }
  return { open, changed, wanted };
}

/** The supply with what was said of it; of what such a supply usually has, only what nobody entered. */
function putSupply(said: SaidSupply, layout: CaseLayout, job: Job): Act {
  const before = job.supply;
  if (said.model !== null) {
    const { name, label } = said.model;
    return { kind: 'put-supply', supply: { name, label }, basedOn: before?.version ?? 0 };
  }
  const label = before?.label ?? { ...emptyLabel, ratingWatts: said.ratingWatts, shape: usualShape[layout] };
  return {
    kind: 'put-supply',
    supply: {
      name: before?.name ?? '',
      label: {
        ...withRating(label, said.ratingWatts),
        shape: said.shape ?? label.shape,
        grade: said.grade ?? label.grade,
        modular: said.modular ?? label.modular,
      },
    },
    basedOn: before?.version ?? 0,
  };
}

/** What the upgrade brings and takes, in the words of the line. */
const upgradeWords = (said: readonly Said[], line: string): string =>
  said
    .filter((one) => ((one.kind === 'part' || one.kind === 'like') && one.change === 'added') || one.kind === 'leaving')
    .map((one) => withoutWish(line.slice(one.from, one.to)))
    .filter((words) => words !== '')
    .join(', ')
    .replace(/(->|→|=>|\b(?:becomes|by|with|for|to)), /gi, '$1 ')
    .slice(0, 500);

/** Case, shapes that its bay takes, ages and upgrade, which the job's sheet holds. */
function editSheet(said: readonly Said[], layout: CaseLayout, line: string, job: Job): Act | null {
  const { sheet } = job;
  const shape = said.find((one) => one.kind === 'supply')?.shape ?? null;
  const shapesNow = layout === sheet.layout ? sheet.shapes : shapesOfLayout(sheet, layout, shape);
  const shapes = shape === null ? shapesNow : shapesWithSupply({ layout, shapes: shapesNow }, shape);
  const upgrade = sheet.upgrade.trim() === '' ? upgradeWords(said, line) : '';
  const ageOf = (of: 'machine' | 'supply') => said.findLast((one) => one.kind === 'age' && one.of === of);
  const [machine, supply] = [ageOf('machine'), ageOf('supply')];
  const changes: SheetChanges = {
    ...(said.some((one) => one.kind === 'case') ? { layout } : {}),
    ...(shapes.join() === sheet.shapes.join() ? {} : { shapes }),
    ...(machine?.kind === 'age' ? { machineYears: machine.years } : {}),
    ...(supply?.kind === 'age' ? { supplyYears: supply.years } : {}),
    ...(upgrade === '' ? {} : { upgrade }),
  };
  return Object.keys(changes).length === 0 ? null : { kind: 'edit-sheet', changes, basedOn: sheet.version };
}

/**
 * What has to be done to a job so that it holds what a line says of the machine; nothing is done here.
 * @param line the line that was understood
 * @param board the class of the board that is taken for granted, null for none
 * @param makeId identifiers for new parts
 */
export function takeIn(
  understood: Understood,
  line: string,
  job: Job,
  own: readonly OwnPartSource[],
  board: string | null,
  makeId: () => string,
): TakenIn {
  const { said } = understood;
  const layout = said.findLast((one) => one.kind === 'case')?.layout ?? job.sheet.layout;
  const sheet = editSheet(said, layout, line, job);
  const came = cameAndGoes(said, job.parts);
  const named = wantedOf(said, own, board, came, job.parts);
  const { changed, wanted, open } = withLeaving(said, job.parts, named.wanted, came);
  return {
    acts: [
      ...(sheet === null ? [] : [sheet]),
      ...said.flatMap((one): Act[] => (one.kind === 'supply' ? [putSupply(one, layout, job)] : [])),
      ...changed,
      ...newParts(wanted, job.parts, makeId).map((part): Act => ({ kind: 'put-part', part, basedOn: 0 })),
    ],
    open: [...named.open, ...open],
    came,
  };
}
