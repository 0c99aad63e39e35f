import { execFile } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { loadModel } from '@fairwatt/server';
import {
  computeVerbs,
  jobFileSchema,
  knowledgeSchema,
  presentJobFile,
  shelfFileSchema,
  shopFileSchema,
  supplyFileSchema,
  type ComputeVerb,
  type Problem,
} from '@fairwatt/contract';
import { compute, ComputeProblem } from './compute.ts';
import { root } from './paths.ts';
import { knowledgePage } from './knowledge-page.ts';
import { jsonSchemas } from './schemas.ts';

const formats = readFileSync(join(root, 'docs/formats.md'), 'utf8');
const examples = new Map(
  [...formats.matchAll(/```json compute:(\w+)\n([\s\S]*?)```/g)].map((match) => [match[1]!, match[2]!]),
);
const model = await loadModel();
const input = (verb: ComputeVerb): unknown => JSON.parse(examples.get(verb)!);
const readJson = (path: string): unknown => JSON.parse(readFileSync(join(root, path), 'utf8'));

function command(
  args: readonly string[],
  standardInput: string,
): Promise<{ code: number | null; out: string; error: string }> {
  return new Promise((resolve) => {
    const child = execFile(join(root, 'fairwatt'), ['compute', ...args], (_failure, out, error) =>
      resolve({ code: child.exitCode, out, error }),
    );
    child.stdin!.end(standardInput);
  });
}

describe('the examples of docs/formats.md', () => {
  it('cover every verb', () => {
    expect([...examples.keys()].sort()).toEqual([...computeVerbs].sort());
  });
  it('verdict', () => {
    const result = compute('verdict', input('verdict'), () => model) as {
      verdicts: { word: string; subject: string }[];
      steadiness: { word: string }[];
    };
    expect(result.verdicts.map((verdict) => [verdict.subject, verdict.word])).toEqual([
      ['+12', 'pass'],
      ['+12', 'fail'],
      ['+5', 'fail'],
    ]);
    expect(result.steadiness[0]!.word).toBe('sags');
  });
  it('diagnose', () => {
    const result = compute('diagnose', input('diagnose'), () => model) as {
      suspects: { faultId: string; evidence: unknown[] }[];
      nextChecks: { checkId: string }[];
      conclusion: { state: string };
    };
    expect(result.suspects[0]!.faultId).toBe('psu-weak');
    expect(result.suspects[0]!.evidence.length).toBeGreaterThan(0);
    expect(result.nextChecks).toHaveLength(5);
  });
  it('diagnose takes several symptoms, and says when two faults explain more than one', () => {
    const story = [
      ['told-button', 'cuts-load'],
      ['told-button', 'several-tries'],
      ['m-rails-work', 'out'],
      ['m-steady', 'sags'],
      ['m-cpu-temp', 'hot'],
      ['look-dust', 'blocked'],
      ['d-swap', 'better'],
    ].map(([check, outcome]) => ({ check, outcome }));
    const result = compute('diagnose', { outcomes: story }, () => model) as {
      twoFaults: { firstId: string; pairs: { names: string[] }[] } | null;
    };
    expect(result.twoFaults).toMatchObject({
      firstId: 'cpu-hot',
      pairs: [{ names: ['Supply weak under load', 'Processor overheats'] }, {}, {}],
    });
  });
  it('diagnose says what must be made safe before anything else, and how that is noted', () => {
    const answer = (outcomes: readonly { check: string; outcome: string }[]) =>
      compute('diagnose', { outcomes }, () => model) as {
        nextStep: { do: string };
        nextChecks: { checkId: string; powers?: string }[];
        interlocks: {
          dangerId: string;
          madeSafe: string | null;
          bars: string[];
          ways: { check: string; outcome: string }[];
        }[];
      };
    const found = { check: 'look-switch', outcome: 'selector' };
    const { nextStep, interlocks } = answer([found]);
    expect(nextStep).toEqual({ do: 'make-safe', dangerId: 'selector' });
    expect(interlocks.map((interlock) => interlock.bars)).toEqual([['machine', 'supply', 'spare', 'fitted']]);
    const way = interlocks[0]!.ways[0]!;
    expect(answer([found, { check: way.check, outcome: way.outcome }])).toMatchObject({ interlocks: [] });
  });
  it('load', () => {
    const result = compute('load', input('load'), () => model) as Record<
      'present' | 'planned',
      { demand: { sustainedWatts: number }; assessment: { word: string } }
    >;
    expect(result.planned.demand.sustainedWatts - result.present.demand.sustainedWatts).toBeCloseTo(180, 9);
    expect([result.present.assessment.word, result.planned.assessment.word]).toEqual(['enough', 'too-small']);
  });
  it('rank', () => {
    expect((compute('rank', input('rank'), () => model) as { candidates: unknown[] }).candidates).toMatchObject([
      { supplyId: 'small', fits: true, reasons: [] },
    ]);
  });
  it('plan', () => {
    expect(compute('plan', input('plan'), () => model)).toMatchObject({
      open: [],
      assignments: [{ inletId: 'd1', socketLabel: 'DRIVE 1', plugIndex: 0 }],
    });
  });
});

describe('bad input', () => {
  const problemOf = (verb: ComputeVerb, wrong: unknown): Problem => {
    try {
      compute(verb, wrong, () => model);
    } catch (error) {
      if (error instanceof ComputeProblem) return error.problem;
      throw error;
    }
    throw new Error('nothing was refused');
  };
  it.each<[ComputeVerb, unknown, string]>([
    ['verdict', { guide: '2.x', instruments: [], readings: [] }, 'instruments'],
    ['verdict', { ...(JSON.parse(examples.get('verdict')!) as object), guide: '4.x' }, 'guide'],
    ['diagnose', { outcomes: [{ check: 'told-button', outcome: 'explodes' }] }, 'outcomes.0.outcome'],
    ['diagnose', { outcomes: [{ check: 'nothing', outcome: 'x' }] }, 'outcomes.0.check'],
    [
      'diagnose',
      {
        outcomes: [
          { check: 'look-dust', outcome: 'clean' },
          { check: 'look-dust', outcome: 'dusty' },
        ],
      },
      'outcomes.1.check',
    ],
    ['load', { parts: [], supply: null }, 'parts'],
    [
      'plan',
      {
        ...(JSON.parse(examples.get('plan')!) as object),
        kit: { sockets: [], cables: [{ id: 'x', family: 'drive', fixed: true, count: 1, gauge: 18, plugs: [] }] },
      },
      'kit.cables.0.plugs',
    ],
  ])('%s names the field', (verb, wrong, path) => {
    expect(problemOf(verb, wrong).errors?.map((error) => error.path)).toContain(path);
  });
  it('comes as a problem document on standard error with exit code 2', async () => {
    const cut = await command(['verdict'], '{ "guide": ');
    expect([cut.code, cut.out]).toEqual([2, '']);
    expect(JSON.parse(cut.error)).toMatchObject({ type: '/problems/not-json', status: 400 });
    expect((await command(['dance'], '{}')).code).toBe(2);
    expect((await command(['plan', '/no/such/file'], '')).error).toContain('cannot be read');
  });
  it('prints JSON for good input', async () => {
    const good = await command(['plan', '-'], examples.get('plan')!);
    expect([good.code, good.error]).toEqual([0, '']);
    expect(JSON.parse(good.out)).toEqual(compute('plan', input('plan'), () => model));
  });
});

describe('open formats', () => {
  it('have JSON Schemas that are up to date', () => {
    const made = jsonSchemas();
    expect(readdirSync(join(root, 'docs/schemas')).sort()).toEqual([...made.keys()].sort());
    for (const [name, text] of made) expect(readFileSync(join(root, 'docs/schemas', name), 'utf8'), name).toBe(text);
  });
  it('hold the demo data and the knowledge', () => {
    expect(shopFileSchema.safeParse(readJson('demo/shop.json')).success).toBe(true);
    expect(supplyFileSchema.safeParse(readJson('demo/supplies.json')).success).toBe(true);
    const shelf = shelfFileSchema.parse(readJson('demo/shelf.json'));
    const free = (id: string) =>
      shelf.units.filter((unit) => unit.modelId === id && (unit.state === 'new' || unit.state === 'proven')).length;
    for (const model of supplyFileSchema.parse(readJson('demo/supplies.json')).supplies)
      expect(free(model.id), model.id).toBe(model.onShelf);
    expect(knowledgeSchema.safeParse(readJson('core/knowledge/knowledge.json')).success).toBe(true);
    expect(readdirSync(join(root, 'demo/jobs'))).toHaveLength(8);
    for (const folder of ['demo/jobs', 'demo/past-jobs'])
      for (const name of readdirSync(join(root, folder)))
        expect(jobFileSchema.safeParse(presentJobFile(readJson(`${folder}/${name}`))).error, name).toBeUndefined();
  });
  it('are told as a page to argue with, up to date', () => {
    expect(readFileSync(join(root, 'docs/knowledge.md'), 'utf8')).toBe(knowledgePage(model.shipped));
    for (const fault of model.faults) expect(knowledgePage(model.shipped)).toContain(fault.name);
  });
});
