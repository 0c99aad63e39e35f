import type { Grade, Shape } from '../standards/index.ts';
import type { KnownSupply } from './known-supply.ts';
import type { CaseLayout, Modular } from '../machine/index.ts';

/** A stretch of the line, from its first letter to behind its last. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/**
 * What was not said of something that was, so that a usual value is taken: the watts, the plugs, how many, or of which
 * kind it is.
 */
export type Doubt = 'watts' | 'plugs' | 'count' | 'kind';

/** A part that was named. */
export interface SaidPart extends Span {
  readonly kind: 'part';
  /** A class of parts; `own` is a part of the shop's own instead. */
  readonly classId: string;
  readonly own: string | null;
  readonly quantity: number;
  /** Lasting watts, where they were said and the class does not already stand for them. */
  readonly watts: number | null;
  readonly change: 'stays' | 'added';
  readonly doubts: readonly Doubt[];
}

/** A part like one of its kind that the machine has. */
export interface SaidLike extends Span {
  readonly kind: 'like';
  readonly noun: string;
  readonly classIds: readonly string[];
  readonly quantity: number;
  readonly change: 'stays' | 'added';
}

/** Parts that the upgrade takes out: those of the machine that are of one of these classes. */
export interface SaidLeaving extends Span {
  readonly kind: 'leaving';
  readonly noun: string;
  readonly classIds: readonly string[];
  /** How many of them; null where it was not said. */
  readonly quantity: number | null;
  /** Something comes in their place. */
  readonly replaced: boolean;
  /** It was not named, but what comes is of its kind: where there is none, nothing leaves. */
  readonly ifThere?: true;
  /**
   * What it is by itself, where something takes its place and the words say enough of it: it came with a machine that
   * nothing of its kind is known of yet.
   */
  readonly itself?: SaidPart;
}

export interface SaidCase extends Span {
  readonly kind: 'case';
  readonly layout: CaseLayout;
}

export interface SaidSupply extends Span {
  readonly kind: 'supply';
  /** The one of the shop's that was named; null where its figures were said. */
  readonly model: KnownSupply | null;
  readonly ratingWatts: number;
  readonly shape: Shape | null;
  readonly grade: Grade | null;
  readonly modular: Modular | null;
}

export interface SaidAge extends Span {
  readonly kind: 'age';
  readonly of: 'machine' | 'supply';
  readonly years: number;
}

/** Something that cannot be taken in before it is said more exactly; of a quantity, with how many there can be. */
export type SaidTooLittle = Span & { readonly kind: 'ask' } & (
    | {
        readonly ask:
          'card-plugs' | 'board-plugs' | 'supply-watts' | 'instead' | 'no-part' | 'supply-comes' | 'new-or-there';
      }
    | { readonly ask: 'quantity'; readonly most: number }
  );

/** What was said and changes nothing: that something is not there, or is kept. */
export interface SaidAside extends Span {
  readonly kind: 'aside';
  readonly why: 'absent' | 'kept';
}

export type Said = SaidAside | SaidPart | SaidLike | SaidLeaving | SaidCase | SaidSupply | SaidAge | SaidTooLittle;

export interface Understood {
  /** In the order in which it stands in the line. */
  readonly said: readonly Said[];
  /** Words of which nothing is known. */
  readonly unknown: readonly Span[];
}
