import {
  boundToBe,
  type CandidateRow,
  type FitQuestion,
  type LoadDraws,
  type MachinePart,
  type Shop,
  type SupplyLabel,
} from '@fairwatt/core';
import { proxy, wrap, type Remote } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import type { SizingSession } from '../workers/sizing-session.ts';

/** One worker for the whole page, made when it is first needed. */
let made: Remote<SizingSession> | null = null;
function session(): Remote<SizingSession> {
  made ??= wrap<SizingSession>(new Worker(new URL('../workers/sizing-worker.ts', import.meta.url), { type: 'module' }));
  return made;
}
let stocked: Shop['supplies'] | null = null;
async function stock(supplies: Shop['supplies']): Promise<void> {
  if (stocked === supplies) return;
  stocked = supplies;
  await session().stock(supplies);
}

/** How the judging of the shop's supplies stands. */
export interface Judging {
  /** The share that is judged while it is under way; null else. */
  readonly share: number | null;
  readonly failed: boolean;
  /** Somebody stopped it: what is shown answers an earlier question, or nothing. */
  readonly stopped: boolean;
  readonly stop: () => void;
  readonly again: () => void;
}

type Phase = Pick<Judging, 'share' | 'failed' | 'stopped'>;
const done: Phase = { share: null, failed: false, stopped: false };
const begun: Phase = { ...done, share: 0 };

/** What is asked, to the letter: the same question is not judged twice, and one that was stopped stays so. */
const keyOf = (question: FitQuestion | null, { choosing, currency }: Shop['settings']): string =>
  JSON.stringify([question, choosing.weights, currency], (_name, value: unknown) =>
    value instanceof Map ? [...(value as Map<unknown, unknown>)] : value,
  );

/** The shop's supplies judged and ranked in a worker; while it works and where it is stopped, the last answer stays. */
export function useRanking(
  question: FitQuestion | null,
  shop: Pick<Shop, 'settings' | 'supplies'>,
): { readonly rows: readonly CandidateRow[]; readonly judging: Judging } {
  const [rows, setRows] = useState<readonly CandidateRow[]>([]);
  const [phase, setPhase] = useState<Phase>(question === null ? done : begun);
  const [round, setRound] = useState(0);
  const { supplies, settings } = shop;
  const key = useMemo(() => keyOf(question, settings), [question, settings]);
  useEffect(() => {
    let current = true;
    if (question === null) {
      setRows([]);
      setPhase(done);
      return undefined;
    }
    setPhase(begun);
    const byId = new Map(supplies.map((model) => [model.id, model]));
    const tell = proxy((share: number) => {
      if (current) setPhase((before) => (before.stopped ? before : { ...begun, share }));
    });
    stock(supplies)
      .then(() => session().rank(question, settings.choosing.weights, settings.currency, tell))
      .then((ranked) => {
        if (!current || ranked === null) return;
        setRows(
          ranked.map(({ modelId, ...row }) => ({ ...row, model: boundToBe(byId.get(modelId), `supply ${modelId}`) })),
        );
        setPhase(done);
      })
      .catch(() => {
        if (current) setPhase({ ...done, failed: true });
      });
    return () => {
      current = false;
    };
    // oxlint-disable-next-line react-hooks/exhaustive-deps -- the key says all of question and settings that is asked
  }, [key, supplies, round]);
  const judging = useMemo<Judging>(
    () => ({
      ...phase,
      stop: () => {
        setPhase({ ...done, stopped: true });
        void session().stop();
      },
      again: () => setRound((before) => before + 1),
    }),
    [phase],
  );
  return { rows, judging };
}

/** 100,000 machines alike, drawn in the worker; null until they are. */
export function useDraws(parts: readonly MachinePart[], label: SupplyLabel | null, ageShare: number): LoadDraws | null {
  const key = useMemo(
    () => JSON.stringify([parts.map((part) => [part.id, part.quantity, part.figures]), label, ageShare]),
    [parts, label, ageShare],
  );
  const [drawn, setDrawn] = useState<{ readonly key: string; readonly draws: LoadDraws } | null>(null);
  useEffect(() => {
    let current = true;
    void session()
      .draw(parts, label, ageShare)
      .then((draws) => {
        if (current) setDrawn({ key, draws });
      });
    return () => {
      current = false;
    };
    // oxlint-disable-next-line react-hooks/exhaustive-deps -- the key says all that the draws depend on
  }, [key]);
  return drawn?.draws ?? null;
}
