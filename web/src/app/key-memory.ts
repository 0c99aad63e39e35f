/** A station's digit is waited for this long after "g", in milliseconds; meanwhile the stations show their digits. */
export const stationWithin = 4_000;
/** A second Enter this soon after the first was not meant, in milliseconds. */
const doubledWithin = 400;

export interface KeyMemory {
  /** "g" was pressed: the next digit names a station. */
  readonly go: (at: number) => void;
  /** Does a digit pressed now name a station? What it was asked for is forgotten with the answer. */
  readonly goes: (at: number) => boolean;
  readonly forget: () => void;
  /** Is an Enter meant now? One that is, is remembered. */
  readonly meant: (at: number) => boolean;
}

/**
 * What the keyboard remembers between two keys, whatever is drawn anew meanwhile. Instants are those of the key events,
 * in milliseconds, so that a busy page neither makes two Enters of one nor forgets what was pressed while it was busy.
 */
export function keyMemory(): KeyMemory {
  let wentAt: number | null = null;
  let lastMeant = -Infinity;
  return {
    go: (at) => {
      wentAt = at;
    },
    goes: (at) => {
      const since = wentAt;
      wentAt = null;
      return since !== null && at - since < stationWithin;
    },
    forget: () => {
      wentAt = null;
    },
    meant: (at) => {
      if (at - lastMeant < doubledWithin) return false;
      lastMeant = at;
      return true;
    },
  };
}
