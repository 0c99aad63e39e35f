/** The socket at a supply's back, and the lead that goes into it. */
export type MainsInlet = 'C14' | 'C20';
export const mainsInlets = ['C14', 'C20'] as const satisfies readonly MainsInlet[];

/** Where a supply's voltage selector stands, by the figure that it shows; `none`: it takes any mains by itself. */
export type MainsSelector = 'none' | '115' | '230';
export const mainsSelectors = ['none', '115', '230'] as const satisfies readonly MainsSelector[];

/**
 * Does the selector stand wrong for these mains, in volts? At 115 on 230 V the supply is destroyed at once
 * (established); at 230 on 115 V it starts badly or not at all.
 */
export const selectorIsWrong = (selector: MainsSelector, mainsVolts: number): boolean =>
  selector !== 'none' && (selector === '115') === mainsVolts >= 160;

/** Correction of the power factor. */
export type Correction = 'active' | 'passive' | 'none';
export const corrections = ['active', 'passive', 'none'] as const satisfies readonly Correction[];

/** Power factor to plan with, the lower end of what is usual (likely). */
export const powerFactor: Record<Correction, number> = { active: 0.95, passive: 0.65, none: 0.6 };

/** Amps of inlet and lead (IEC 60320, established; the higher figures where mains are 120 V or less). */
export function leadAmps(inlet: MainsInlet, mainsVolts: number): number {
  return inlet === 'C14' ? (mainsVolts < 160 ? 15 : 10) : mainsVolts < 160 ? 20 : 16;
}

/**
 * Lowest voltage that the mains may have, in volts: 10 % under nominal in 230 V countries, 5 % in 100 and 120 V ones
 * (EN 50160, ANSI C84.1).
 */
export function lowestMainsVolts(nominalVolts: number): number {
  return nominalVolts * (nominalVolts >= 160 ? 0.9 : 0.95);
}

/** What a supply watches over and switches off for. */
export type Protection =
  'over-voltage' | 'under-voltage' | 'over-current' | 'over-power' | 'over-temperature' | 'short-circuit';
export const protectionNames = [
  'over-voltage',
  'under-voltage',
  'over-current',
  'over-power',
  'over-temperature',
  'short-circuit',
] as const satisfies readonly Protection[];
