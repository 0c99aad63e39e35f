import type { Logger } from 'pino';
import { databaseIsGone } from './gone.ts';
import { askPlace, chosenPlace, hostOf, placesOf, type PlaceState } from './places.ts';

/** All places are asked again after so many milliseconds, and sooner while none takes writes. */
const betweenLooks = 2000;
const betweenSearches = 400;

/** An answer that is no absence: the place is there and does not let us in, or is no database. */
const refusalIn = (answer: PromiseSettledResult<unknown>): Error[] =>
  answer.status === 'rejected' && answer.reason instanceof Error && !databaseIsGone(answer.reason)
    ? [answer.reason]
    : [];

/**
 * Where the database takes writes. Of an address with one place it is that place; of one with several it is looked for
 * and followed: after the promotion of a standby, what is connected to elsewhere is told.
 */
export class Primary {
  private readonly places: readonly [string, ...string[]];
  private readonly log: Logger;
  private readonly movers = new Set<() => void>();
  private readonly watching: Promise<void>;
  private place: string;
  private timeline = 0;
  private known: boolean;
  private refused: Error | null = null;
  /** What was told last, so that it is told once. */
  private told = '';
  private closed = false;
  private wake: () => void = () => undefined;

  constructor(databaseUrl: string, log: Logger) {
    this.places = placesOf(databaseUrl);
    this.log = log;
    this.place = this.places[0];
    this.known = this.places.length === 1;
    this.watching = this.known ? Promise.resolve() : this.watch();
  }

  /** The address of the place, as it is known now. */
  get url(): string {
    return this.place;
  }

  /** Whether the places were asked: before that it may be an old one. */
  get isKnown(): boolean {
    return this.known;
  }

  /** What a place refused with though it is there, such as a wrong password; null where none did. */
  get refusal(): Error | null {
    return this.refused;
  }

  /** Calls back when the place is another one; the answer stops it. */
  onMove(hear: () => void): () => void {
    this.movers.add(hear);
    return () => this.movers.delete(hear);
  }

  /** Looks at once: somebody lost a connection. */
  look(): void {
    this.wake();
  }

  private tell(what: string): void {
    if (what !== this.told) this.log.warn(what);
    this.told = what;
  }

  private async search(): Promise<boolean> {
    const answers = await Promise.allSettled(this.places.map(askPlace));
    const states = answers.flatMap((answer): PlaceState[] => (answer.status === 'fulfilled' ? [answer.value] : []));
    const chosen = chosenPlace(states, this.place);
    this.refused = answers.flatMap(refusalIn)[0] ?? null;
    if (chosen === null) {
      this.tell('no place of the database takes writes just now');
      return false;
    }
    if (chosen.timeline < this.timeline) {
      this.tell(`the database at ${hostOf(chosen.place)} is an old primary; nothing is written there`);
      return false;
    }
    this.timeline = chosen.timeline;
    this.known = true;
    if (chosen.place !== this.place || this.told !== '')
      this.tell(`the database takes writes at ${hostOf(chosen.place)}`);
    if (chosen.place !== this.place) {
      this.place = chosen.place;
      for (const hear of this.movers) hear();
    }
    return true;
  }

  private pause(milliseconds: number): Promise<void> {
    return new Promise((resolve) => {
      const timer = setTimeout(resolve, milliseconds);
      timer.unref();
      this.wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }

  private async watch(): Promise<void> {
    while (!this.closed) {
      const found = await this.search();
      if (!this.closed) await this.pause(found ? betweenLooks : betweenSearches);
    }
  }

  async close(): Promise<void> {
    this.closed = true;
    this.wake();
    await this.watching;
  }
}
