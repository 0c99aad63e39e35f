/** Power limits of plugs, slots and cables; watts on the voltage named. */
export const limits = {
  /** x16 slot: 75 W in all, 5.5 A of it on +12 (card electromechanical specification, established). */
  slotWatts: 75,
  slotTwelveVoltAmps: 5.5,
  /** Card inlets in watts (card electromechanical specification, established). */
  cardInletWatts: { 'card-6': 75, 'card-8': 150, 'card-16': 600 },
  /** Processor inlets in watts at 18 AWG (bench practice). */
  processorInletWatts: { 'cpu-4': 150, 'cpu-8': 336 },
  /** One cable with two 8-pin card plugs: above this use two cables (bench practice). */
  sharedCardCableWatts: 225,
  /** Whole drive chain at 18 AWG, amps per voltage (bench practice). */
  driveChainAmps: 7,
  /** One SATA plug, amps per voltage (Serial ATA, established). */
  sataPlugAmps: 4.5,
  /** One peripheral plug and one small drive plug, amps (bench practice). */
  peripheralPlugAmps: 5,
  smallDrivePlugAmps: 2,
  /** One fan header of a board, amps on +12 (bench practice). */
  fanHeaderAmps: 1,
  /** Slot: 3 A on +3.3 (card electromechanical specification, established). */
  slotThreeVoltAmps: 3,
  /** Main connector with ordinary contacts, amps per voltage: 6 A for each contact (bench practice). */
  mainConnectorAmps: {
    'main-24': { '+12': 12, '+5': 30, '+3.3': 24 },
    'main-20': { '+12': 6, '+5': 24, '+3.3': 18 },
  },
} as const;

/** Amps per live conductor in a bundle by gauge (bench practice). */
export const conductorAmps: Record<16 | 18 | 20 | 22, number> = { 16: 9, 18: 7, 20: 5, 22: 3 };
export type Gauge = keyof typeof conductorAmps;
export const gauges = [16, 18, 20, 22] as const satisfies readonly Gauge[];

/** Resistance of one conductor at 20 C in milliohms a metre (American wire gauge, copper, established). */
export const wireMilliohmsPerMetre: Record<Gauge, number> = { 16: 13.17, 18: 20.95, 20: 33.3, 22: 53.0 };
/** Resistance of one contact: new ones have 1 to 5, about 10 is the limit (bench practice); `usual` is planned with. */
export const contactMilliohms = { usual: 5, most: 10 } as const;
/** No bend of a 16-pin cable closer to its plug than this, in millimetres (card maker's advice, likely). */
export const sixteenPinStraightMillimetres = 35;
