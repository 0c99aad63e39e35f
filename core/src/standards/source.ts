/** Where a figure comes from, so that a person can weigh it. */
export type Confidence = 'established' | 'likely' | 'unsure' | 'practice';

/** A published document or shop practice behind a figure. */
export interface Source {
  readonly title: string;
  readonly confidence: Confidence;
}

export const sources = {
  guide2: { title: 'ATX12V power supply design guide, 2.x', confidence: 'established' },
  guide3: { title: 'ATX desktop power supply design guide, 3.x', confidence: 'likely' },
  cem: { title: 'PCI Express card electromechanical specification', confidence: 'established' },
  sata: { title: 'Serial ATA specification, power connector', confidence: 'established' },
  copper: { title: 'Resistance of standard annealed copper by gauge at 20 °C', confidence: 'established' },
  grades: { title: 'Published efficiency grade thresholds', confidence: 'established' },
  guardBand: { title: 'ILAC-G8 and ISO 14253-1, decision rules with guard band', confidence: 'established' },
  practice: { title: 'Bench practice', confidence: 'practice' },
} as const satisfies Record<string, Source>;
