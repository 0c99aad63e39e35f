import { Button, Input } from 'antd';
import { candidateFacts, factsReason, type CandidateRow } from '@fairwatt/core';
import { Primary } from '../../controls/fields.tsx';
import { Spoken } from '../../controls/spoken.tsx';
import { useDesk } from '../../job/job-context.ts';
import { useTypedText } from '../../offline/typed-texts.ts';
import { looks } from '../../looks/looks.ts';
import { PickedFacts, PickedMarks, PickedWhy } from './picked-facts.tsx';
import { Units } from './picked-units.tsx';

function standingOf(candidate: CandidateRow, chosenHere: boolean, best: boolean): string {
  if (chosenHere) return 'Chosen';
  if (!candidate.fits) return candidate.class === 'almost' ? 'Almost fits' : 'Falls';
  return best ? 'Best by the weights' : 'Fits';
}

/** The supply picked: what it is, why it stands where it stands, and the choice. */
export function PickedSide({
  candidate,
  best,
  primary,
  onKeep,
}: {
  readonly candidate: CandidateRow;
  readonly best: boolean;
  readonly primary: boolean;
  /** Keeps what is there, for a reason. */
  readonly onKeep: (reason: string) => void;
}) {
  const { job, view, shop, locked, goTo } = useDesk();
  const { model } = candidate;
  const [reason, setReason] = useTypedText(`${job.code}.why.${model.id}`);
  const chosenHere = job.choice?.kind === 'replace' && job.choice.modelId === model.id;
  const beating =
    candidate.beatenBy === null ? undefined : view.candidates.find((other) => other.model.id === candidate.beatenBy);
  const standing = standingOf(candidate, chosenHere, best);
  return (
    <>
      <span className={looks.label}>{standing}</span>
      <Spoken>{`${model.name}: ${standing}`}</Spoken>
      <div className={looks.decides}>{model.name}</div>
      <PickedFacts candidate={candidate} />
      <PickedWhy candidate={candidate} />
      <PickedMarks candidate={candidate} />
      {beating !== undefined && (
        <p className={looks.quiet}>{beating.model.name} is at least as good in everything, and better in something.</p>
      )}
      {chosenHere ? (
        <Primary onClick={() => goTo('cables')}>Plan its cables</Primary>
      ) : (
        <Choose candidate={candidate} reason={reason} primary={primary} />
      )}
      {!chosenHere && (
        <label className={looks.field}>
          <span className={looks.name}>Why this one</span>
          <Input
            value={reason}
            maxLength={500}
            placeholder={factsReason(candidateFacts(candidate, shop.settings.currency))}
            disabled={locked}
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
      )}
      <Units modelId={model.id} chosen={chosenHere} />
      {job.choice?.kind !== 'keep' && primary && <Keep onKeep={() => onKeep(reason)} />}
    </>
  );
}

/** Takes it for this job, with the reason that was typed, or the one that its standing gives. */
function Choose({
  candidate,
  reason,
  primary,
}: {
  readonly candidate: CandidateRow;
  readonly reason: string;
  readonly primary: boolean;
}) {
  const { job, shop, act, locked, judging, goTo } = useDesk();
  const { model } = candidate;
  const typed = reason.trim();
  const words = candidate.fits
    ? `Choose ${model.name}`
    : candidate.class === 'almost'
      ? 'Choose it with what it takes (say why)'
      : 'Choose all the same (say why)';
  // What was judged before the last change is not to be chosen by.
  const stopped = locked || judging.stopped || (!candidate.fits && typed === '');
  const choose = () => {
    const refusal = act({
      kind: 'set-choice',
      choice: {
        kind: 'replace',
        modelId: model.id,
        reason: typed,
        facts: candidateFacts(candidate, shop.settings.currency),
        known: [],
      },
      basedOn: job.choice?.version ?? 0,
    });
    if (refusal === null) goTo('cables');
  };
  return primary ? (
    <Primary disabled={stopped} onClick={choose}>
      {words}
    </Primary>
  ) : (
    <Button disabled={stopped} onClick={choose}>
      {words}
    </Button>
  );
}

/** Keeps the supply that is there, where it may stay. */
function Keep({ onKeep }: { readonly onKeep: () => void }) {
  const { view, locked } = useDesk();
  const { standing, load } = view;
  const isFailing = standing.word === 'failing';
  const carries = load.plannedAssessment !== null && load.plannedAssessment.word !== 'too-small';
  const keepable = standing.word === 'enough' || (carries && !isFailing);
  return (
    <Button disabled={locked || !keepable} onClick={onKeep}>
      {keepable ? 'Keep the present supply' : `The present supply cannot stay: ${isFailing ? 'failing' : 'too small'}`}
    </Button>
  );
}
