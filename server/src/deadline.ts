export interface Deadline {
  readonly signal: AbortSignal;
  /** What was waited for has come. */
  readonly met: () => void;
}

/**
 * Aborts what takes longer. Its timer holds on to the signal: one that only a request knows can be let go together with
 * the request, which then never ends.
 */
export function deadline(milliseconds: number): Deadline {
  const controller = new AbortController();
  const timer = setTimeout(() => controller.abort(), milliseconds);
  return { signal: controller.signal, met: () => clearTimeout(timer) };
}
