import { readFileSync } from 'node:fs';
import { noBags } from '../cable/index.ts';
import { compileModel } from '../diagnose/index.ts';
import { machinePart } from '../machine/machine-part.test-help.ts';
import type { RailName } from '../standards/index.ts';
import type { SupplyModel } from '../supply/index.ts';
import {
  basedOnStanding,
  knowsOf,
  applyAct,
  bareReading,
  firstChoosing,
  newJob,
  unanswered,
  viewJob,
  type Act,
  type Job,
  type JobPart,
  type Refusal,
  type Shop,
} from './index.ts';
import { knowledge } from '../diagnose/knowledge.test-help.ts';

const supplyFile = JSON.parse(readFileSync(new URL('../../../demo/supplies.json', import.meta.url), 'utf8')) as {
  supplies: SupplyModel[];
};

export const testShop: Shop = {
  settings: {
    codePrefix: 'LQ',
    name: 'Bench',
    mainsVolts: 230,
    currency: 'EUR',
    locale: 'en-GB',
    timeZone: '',
    school: 'peaks-covered',
    stopProbability: 0.9,
    bench: { has: ['meter', 'tester', 'spare-supply'], mayMeterMains: true },
    choosing: firstChoosing,
  },
  model: compileModel(knowledge),
  instruments: [
    {
      id: 'meter',
      name: 'Meter',
      kind: 'multimeter',
      ranges: [{ fullScaleVolts: 60, percent: 0.05, counts: 3, digitVolts: 0.001 }],
      powerGoodErrorMilliseconds: 10,
      rippleErrorMillivolts: null,
      calibratedUntil: null,
      ownedBy: '',
    },
  ],
  supplies: supplyFile.supplies,
  bags: noBags,
};

export function uuid(number: number): string {
  return `00000000-0000-4000-8000-${String(number).padStart(12, '0')}`;
}

export function testPart(
  classId: string,
  id: string,
  extra: Partial<Omit<JobPart, 'version'>> = {},
): Omit<JobPart, 'version'> {
  const part = machinePart(classId, id);
  const inlets = part.inlets.map((inlet, index) => ({ ...inlet, id: `${id}-${index + 1}` }));
  return { ...part, inlets, ...extra };
}

/** Every tick that a connector may ask for. */
export const allTicks = { click: true, tug: true, gap: true, halves: true, bend: true, panel: true };

/** A job on a bench where every act takes a minute. */
export class TestBench {
  job: Job = newJob('LQ-0001', 'Machine', 'Client', 'Words', 'peaks-covered', '2026-01-01T00:00:00.000Z');
  #minutes = 0;

  try(act: Act): Refusal | null {
    this.#minutes += 1;
    const at = new Date(Date.UTC(2026, 0, 1, 0, this.#minutes)).toISOString();
    const result = applyAct(this.job, act, {
      by: 'mara',
      at,
      knows: knowsOf(testShop),
      unansweredPoints: (job) => unanswered(viewJob(job, testShop).openPoints).length,
    });
    if (!result.ok) return result.refusal;
    this.job = result.job;
    return null;
  }

  /** Acts of somebody who sees the job as it stands. */
  do(...acts: Act[]): this {
    for (const act of acts) {
      const refusal = this.try(basedOnStanding(act, this.job));
      if (refusal !== null) throw new Error(`${act.kind}: ${JSON.stringify(refusal)}`);
    }
    return this;
  }

  part(classId: string, id: string, extra: Partial<Omit<JobPart, 'version'>> = {}): this {
    return this.do({ kind: 'put-part', part: testPart(classId, id, extra), basedOn: 0 });
  }

  /** A supply of the shop in the place of the one that came. */
  choose(modelId: string): this {
    return this.do({ kind: 'set-choice', choice: { kind: 'replace', modelId, known: [], reason: 'fits' }, basedOn: 0 });
  }

  /** The plug that stands in this inlet's row, ticked; every tick unless some are named. */
  seat(inletId: string, ticks: Partial<typeof allTicks> = {}): this {
    const row = this.view().cabling.rows.find((one) => one.inletId === inletId)!;
    const { cableCode, plugIndex } = row;
    const seat = { inletId, cableCode: cableCode!, plugIndex: plugIndex!, ...allTicks, ...ticks };
    return this.do({ kind: 'put-seat', seat, basedOn: 0 });
  }

  read(
    number: number,
    subject: RailName,
    condition: 'idle' | 'work' | 'off-load',
    volts: number,
    phase: 'before' | 'after' = 'before',
  ): this {
    return this.do({
      kind: 'take-reading',
      reading: {
        id: uuid(number),
        phase,
        subject,
        condition,
        value: { kind: 'figure', figure: volts },
        instrumentId: 'meter',
        ...bareReading,
      },
    });
  }

  view() {
    return viewJob(this.job, testShop);
  }
}
