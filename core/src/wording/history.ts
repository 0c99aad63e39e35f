import { leadStateText } from './leads.ts';
import type { Knowledge } from '../diagnose/index.ts';
import type { Act } from '../job/index.ts';
import { checkTitle, findingNames, outcomeLabel } from './diagnosing.ts';
import { wattsText } from './figures.ts';
import { proofText } from './stations.ts';
import { changeText, codeText, conditionText, subjectText, unitOf } from './words.ts';

/** Names that acts speak of by their ids; the id where nobody knows it any more. */
export interface HistoryNames {
  readonly knowledge: Knowledge;
  readonly part: (id: string) => string;
  readonly inlet: (id: string) => string;
  readonly supply: (id: string) => string;
}

/** What an act did, in a few words. */
export function actText(act: Act, names: HistoryNames): string {
  const { knowledge } = names;
  switch (act.kind) {
    case 'edit-sheet':
      return 'Intake';
    case 'put-part':
      return `Part: ${act.part.name}${act.part.change === 'stays' ? '' : `, ${changeText[act.part.change]}`}`;
    case 'drop-part':
      return `Part taken out: ${names.part(act.partId)}`;
    case 'put-supply': {
      const { name, label, selector } = act.supply;
      const stands = selector === undefined || selector === 'none' ? '' : `, selector at ${selector} V`;
      return `Supply that came: ${name === '' ? '' : `${name}, `}${wattsText(label.ratingWatts)}${stands}`;
    }
    case 'drop-supply':
      return 'Supply that came: taken out';
    case 'note-outcome':
      return `${checkTitle(knowledge, act.checkId)}: ${outcomeLabel(knowledge, act.checkId, act.outcomeId)}`;
    case 'take-back-outcome':
      return 'An answer taken back';
    case 'take-reading':
    case 'correct-reading': {
      const { reading } = act;
      const value =
        reading.value.kind === 'code'
          ? codeText[reading.value.code]
          : `${reading.value.figure} ${unitOf(reading.subject)}`;
      return (
        `${act.kind === 'correct-reading' ? 'Reading corrected' : 'Reading'}: ` +
        `${subjectText[reading.subject]} ${conditionText[reading.condition]}, ${value}`
      );
    }
    case 'strike-reading':
      return 'A reading struck';
    case 'restore-reading':
      return 'A struck reading stands again';
    case 'put-probe':
      return 'Probe walk of a cable';
    case 'drop-probe':
      return 'Probe walk taken out';
    case 'put-log':
      return `Log: ${act.log.name}`;
    case 'drop-log':
      return 'Log taken out';
    case 'set-finding':
      if (act.finding === null) return 'Finding taken back';
      if (act.finding.kind === 'no-fault') return 'Finding: no fault';
      return act.finding.faultId === null ? 'Finding: handed on' : `Finding: ${findingNames(knowledge, act.finding)}`;
    case 'set-choice':
      if (act.choice === null) return 'Choice taken back';
      return act.choice.modelId === null ? 'The present supply stays' : `Chosen: ${names.supply(act.choice.modelId)}`;
    case 'put-cable':
      return `Cable ${act.cable.label} as it was`;
    case 'drop-cable':
      return 'A recorded cable taken out';
    case 'swap-inlets':
      return `Recorded plugs exchanged: ${names.inlet(act.inletId)} and ${names.inlet(act.otherInletId)}`;
    case 'put-pin':
      return `Plug put by hand: ${names.inlet(act.pin.inletId)}`;
    case 'drop-pin':
      return `Plug given back to the plan: ${names.inlet(act.inletId)}`;
    case 'put-seat':
      return `Plug looked at: ${names.inlet(act.seat.inletId)}`;
    case 'recheck-seats':
      return `Looked at again after tying: ${act.inletIds.length} plugs`;
    case 'tick-step':
      return 'A step done';
    case 'untick-step':
      return 'A step open again';
    case 'lay-cable':
      return act.way === '' ? 'The way of a cable taken back' : `A cable laid: ${act.way}`;
    case 'order-steps':
      return 'Steps put in another order';
    case 'put-lead':
      return `Lead ${act.lead.what}: ${leadStateText[act.lead.state]}`;
    case 'drop-lead':
      return 'A lead taken out of the record';
    case 'put-note': {
      const { text, inReport } = act.note;
      return `Note: ${text === '' ? 'a picture' : text}${inReport ? ', for the report' : ''}`;
    }
    case 'drop-note':
      return 'A note taken out';
    case 'mark-leads':
      return `${act.leadIds.length === 1 ? 'A lead' : `${act.leadIds.length} leads`}: ${leadStateText[act.state]}`;
    case 'note-proof':
      return act.holds ? `Shown: ${proofText[act.item]}` : `Does not hold: ${proofText[act.item]}`;
    case 'drop-proof':
      return `Taken back: ${proofText[act.item]}`;
    case 'sign-off':
      return `Signed off: ${act.reason}`;
    case 'withdraw-sign-off':
      return 'A sign-off withdrawn';
    case 'close':
      return 'Closed';
    case 'reopen':
      return 'Opened again';
    case 'put-away':
      return `Put away: ${act.reason}`;
  }
}
