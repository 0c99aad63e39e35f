import { proxy, wrap, type Remote } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import type { CandidateRow, FitQuestion, LoadDraws, MachinePart, Shop, SupplyLabel } from '@fairwatt/core';
import type { SizingSession } from '../workers/sizing-worker.ts';

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

export interface Ranking {
  readonly rows: readonly CandidateRow[];
  /** What the rows answer is not what is asked now; the share that is done. */
  readonly busy: number | null;
  readonly failed: boolean;
}

/** The shop's supplies judged and ranked in a worker; while it works, the last answer stays. */
export function useRanking(question: FitQuestion | null, shop: Pick<Shop, 'settings' | 'supplies'>): Ranking {
  const [state, setState] = useState<Ranking>({ rows: [], busy: question === null ? null : 0, failed: false });
  const { supplies, settings } = shop;
  useEffect(() => {
    let current = true;
    if (question === null) {
      setState({ rows: [], busy: null, failed: false });
      return undefined;
    }
    setState((before) => ({ ...before, busy: 0 }));
    const byId = new Map(supplies.map((model) => [model.id, model]));
    stock(supplies)
      .then(() =>
        session().rank(
          question,
          settings.choosing.weights,
          settings.currency,
          proxy((share: number) => {
            if (current) setState((before) => ({ ...before, busy: share }));
          }),
        ),
      )
      .then((rows) => {
        if (current)
          setState({
            rows: rows.map(({ modelId, ...row }) => ({ ...row, model: byId.get(modelId)! })),
            busy: null,
            failed: false,
          });
      })
      .catch(() => {
        if (current) setState((before) => ({ ...before, busy: null, failed: true }));
      });
    return () => {
      current = false;
    };
  }, [question, supplies, settings]);
  return state;
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
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key says all that the draws depend on
  }, [key]);
  return drawn?.draws ?? null;
}
