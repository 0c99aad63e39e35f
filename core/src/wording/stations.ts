import { type Knowledge } from '../diagnose/index.ts';
import type { BareMissing, BareVerdict, OpenPoint, ProofItem, StationLine, SupplyMark, outNow } from '../job/index.ts';
import { counted, percentText, voltsText, wattsText } from './figures.ts';
import { limitsText, subjectText, verdictLevel } from './words.ts';
import { faultName, outcomeLabel } from './diagnosing.ts';

/** A station's result in one short line. */
export function stationLineText(line: StationLine, knowledge: Knowledge, supplyName: (id: string) => string): string {
  switch (line.code) {
    case 'not-started':
      return 'not started';
    case 'complaint':
      return line.outcomeId === null
        ? `${line.parts} parts`
        : line.outcomeId === 'nothing'
          ? 'button does nothing'
          : outcomeLabel(knowledge, 'told-button', line.outcomeId).toLowerCase();
    case 'suspect':
      return `${percentText(line.probability)} ${faultName(knowledge, line.faultId).toLowerCase()}`;
    case 'found':
      return line.kind === 'no-fault'
        ? 'no fault'
        : line.faultId === null
          ? 'handed on'
          : faultName(knowledge, line.faultId).toLowerCase();
    case 'rail':
      return (
        `${subjectText[line.verdict.subject]} ${verdictLevel(line.verdict)} ` +
        (line.verdict.word === 'fail' ? 'fails' : 'unclear')
      );
    case 'rail-sags':
      return `${line.rail} V sags: ${voltsText(line.workVolts)}`;
    case 'all-pass':
      return `${line.count} of ${line.count} pass`;
    case 'load-no-supply':
      return `${wattsText(line.watts)}, no supply entered`;
    case 'load':
      return (
        `${Math.round(line.watts)} of ${line.ratingWatts} ` +
        `W${line.word === 'too-small' ? ', too small' : line.word === 'tight' ? ', tight' : ''}`
      );
    case 'candidates':
      return `${line.fitting} fit, ${line.onShelf} on shelf`;
    case 'chosen':
      return line.kind === 'keep' ? 'keep the present one' : supplyName(line.modelId ?? '');
    case 'recorded':
      return `${line.cables} cables recorded`;
    case 'seated':
      return `${line.seated} of ${line.all} seated`;
    case 'open':
      return `${line.count} open`;
    case 'ready':
      return 'ready to close';
    case 'closed':
      return 'closed';
    case 'not-needed':
      return 'not needed';
    case 'bare-supply':
      return `${wattsText(line.ratingWatts)} supply by itself`;
    case 'bare':
      return bareWordText[line.word] + (line.word === 'good' && !line.loaded ? ', off load' : '');
  }
}

export const bareWordText: Readonly<Record<BareVerdict['word'], string>> = {
  failed: 'failed',
  good: 'good',
  'cannot-tell': 'cannot tell yet',
};

/** What is missing before a supply by itself can be judged. */
export function bareMissingText(missing: BareMissing): string {
  switch (missing.code) {
    case 'label':
      return "the supply's label";
    case 'outlet':
      return 'its standby voltage: nothing came, and without it the outlet may be dead';
    case 'read':
      return subjectText[missing.subject];
    case 'again':
      return `${subjectText[missing.subject]} once more: one reading does not tell`;
  }
}

/** The verdict on a supply by itself, as a sentence. */
export function bareSentence(bare: BareVerdict): string {
  switch (bare.word) {
    case 'failed':
      return bare.verdict === null
        ? 'It does not start, and its standby voltage is there.'
        : `${subjectText[bare.verdict.subject]} reads ${verdictLevel(bare.verdict)}; ` +
            `${limitsText(bare.verdict)} is right.`;
    case 'good':
      return (
        (bare.loaded
          ? 'Every voltage is inside its limits, under load as well'
          : 'Every voltage is inside its limits off load; what it does at work is not known') +
        (bare.marginal ? ', one of them near its limit.' : '.')
      );
    case 'cannot-tell':
      return `Still missing: ${bare.missing.map(bareMissingText).join('; ')}.`;
  }
}

/** What became of the supply that came, as it stands on its label. */
export const supplyMarkText: Readonly<Record<SupplyMark['word'], string>> = {
  failed: 'Failed',
  kept: 'Good, kept',
  'given-back': 'Goes back to the client',
  unmarked: 'Not judged',
};

/** What its label says beside that: why, what for, and what nobody does with it. */
export function supplyMarkLines({ word, note, bare }: SupplyMark): string[] {
  return [
    ...(note.trim() === '' ? [] : [note.trim()]),
    ...(bare === null ? [] : [bareSentence(bare)]),
    ...(word === 'failed' ? ['Never to be used again, never opened: electrical waste.'] : []),
  ];
}

/** What has to be shown at the finished machine. */
export const proofText: Readonly<Record<ProofItem, string>> = {
  started: 'it starts',
  picture: 'a picture is seen',
  fans: 'every fan turns',
  drives: 'the machine sees every drive',
  card: 'the machine sees its card',
  complaint: "the client's complaint was tried, and is gone",
};
const shownText = (subject: string | null): string => proofText[subject as ProofItem] ?? 'the machine works';

/** What comes next where something was tried and does not hold. */
export const proofNextText: Readonly<Record<ProofItem, string>> = {
  started:
    'Lead out. Look again at every connector of the refit, then at what came loose beside it; ' +
    'after that a second supply, memory, board, processor.',
  picture: 'Lead out. Look at the card in its slot, its plugs, and the screen on the right socket; then memory.',
  fans: 'Lead out. Look for its lead on the header, and for a cable against its blades.',
  drives: 'Lead out. Look at the data lead and the supply plug of the one that is missing.',
  card: 'Lead out. Look at the card in its slot and at each of its plugs.',
  complaint: 'The supply was not all of it. Go on with the search: it knows already that this swap changed nothing.',
};

export function openPointText(point: OpenPoint): string {
  switch (point.code) {
    case 'danger':
      return `${point.subject ?? 'Something dangerous'}, and nobody has noted that it was made safe.`;
    case 'no-finding':
      return 'No finding is set.';
    case 'not-confirmed':
      return `Not proved by a cure or a swap: ${point.subject ?? 'the fault'}.`;
    case 'no-choice':
      return 'No supply is chosen, nor kept with a reason.';
    case 'inlet-open':
      return `${point.subject ?? 'An inlet'} has no cable.`;
    case 'not-seated':
      return `${point.subject ?? 'An inlet'} is not ticked as seated.`;
    case 'inlet-wrong':
      return `${point.subject ?? 'An inlet'} has a plug in it that does not belong there.`;
    case 'plan-breach':
      return `${point.subject ?? 'An inlet'} was moved by hand, and breaks a rule there.`;
    case 'not-rechecked':
      return 'Connectors are not looked at again after tying.';
    case 'plug-misfit':
      return `${point.subject ?? 'An inlet'} is recorded with a plug that does not fit it.`;
    case 'found-adapter':
      return `${point.subject ?? 'An inlet'} was found on an adapter that must not stay; it needs a cable of its own.`;
    case 'not-recorded':
      return (
        `Not recorded as it was: ${countText(point.subject, 'inlet', 'inlets')} ` +
        'without a cable that somebody looked at.'
      );
    case 'take-out-open':
      return `Of taking out, ${countText(point.subject, 'step is', 'steps are')} not ticked.`;
    case 'refit-open':
      return `Of refitting, ${countText(point.subject, 'step is', 'steps are')} not ticked.`;
    case 'lead-out':
      return `${point.subject ?? 'A lead'} is unplugged and not back.`;
    case 'leads-unsaid':
      return `Of ${point.subject ?? 'some'} leads nobody said whether they were touched.`;
    case 'not-shown':
      return `Not shown yet: ${shownText(point.subject)}.`;
    case 'shown-wrong':
      return `It was tried, and this does not hold: ${shownText(point.subject)}.`;
    case 'old-supply-unmarked':
      return point.subject === 'bare'
        ? 'Nobody said what becomes of the supply.'
        : 'Nobody said what became of the supply that came out.';
    case 'bare-unjudged':
      return `The supply is not judged yet: ${countText(point.subject, 'thing is', 'things are')} missing.`;
    case 'failed-kept':
      return 'The supply has failed and is marked to be kept.';
    case 'no-readings-after':
      return `With the new supply no reading passes yet: ${point.subject ?? 'none was taken'}.`;
    case 'fails-after':
      return `${point.subject ?? 'A rail'} fails with the new supply.`;
  }
}

const countText = (count: string | null, one: string, several: string): string =>
  count === '1' ? `one ${one}` : `${count ?? 'some'} ${several}`;

/** What hangs loose right now; empty where nothing does. */
export function outNowText({ plugs, leads }: ReturnType<typeof outNow>): string {
  const counts = [plugs > 0 ? counted(plugs, 'plug') : '', leads > 0 ? counted(leads, 'lead') : ''];
  const told = counts.filter((text) => text !== '').join(' and ');
  return told === '' ? '' : `${told} out now`;
}
