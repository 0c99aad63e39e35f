import type { SignOff } from '../job.ts';
import { proofSubject, standingProof } from '../proofs.ts';
import { refuse, type ActOf, type Doers, type Doing } from './doing.ts';

function noteProof({ item, holds, note, basedOn }: ActOf<'note-proof'>, on: Doing) {
  const subject = proofSubject(on.job, item);
  const proof = { item, subject, version: on.revision, holds, note, ...on.signed };
  return on.put('proofs', proof, basedOn, (one) => one.item === item && one.subject === subject);
}

function signOff({ id, point, reason }: ActOf<'sign-off'>, on: Doing) {
  const { signOffs } = on.job;
  if (signOffs.some((item) => item.point === point)) return refuse({ code: 'duplicate', subject: `sign-off:${point}` });
  const item: SignOff = { id, point, reason, ...on.signed };
  return on.done({ signOffs: [...signOffs, item] });
}

function withdrawSignOff({ id }: ActOf<'withdraw-sign-off'>, on: Doing) {
  const { signOffs } = on.job;
  if (!signOffs.some((item) => item.id === id)) return refuse({ code: 'not-found', subject: `sign-off:${id}` });
  return on.done({ signOffs: signOffs.filter((item) => item.id !== id) });
}

/** Nothing is closed over a point that nobody answered. */
function close({ basedOn }: ActOf<'close'>, on: Doing) {
  const open = on.unansweredPoints(on.job);
  if (open > 0) return refuse({ code: 'open-points', count: open });
  const closed = { state: 'closed', stateVersion: on.revision, closed: on.signed } as const;
  return on.stale(basedOn, on.job.stateVersion) ?? on.done(closed);
}

/** What proves the work, what is signed off, and the job's own state. */
export const closingActs: Doers<
  'note-proof' | 'drop-proof' | 'sign-off' | 'withdraw-sign-off' | 'close' | 'reopen' | 'put-away'
> = {
  'note-proof': noteProof,
  'drop-proof': ({ item, basedOn }, on) => {
    const standing = standingProof(on.job, item);
    return on.drop('proofs', basedOn, (proof) => proof === standing);
  },
  'sign-off': signOff,
  'withdraw-sign-off': withdrawSignOff,
  close,
  reopen: ({ basedOn }, on) =>
    on.stale(basedOn, on.job.stateVersion) ??
    on.done({ state: 'open', stateVersion: on.revision, closed: null, putAway: null }),
  'put-away': ({ basedOn, reason }, on) =>
    on.stale(basedOn, on.job.stateVersion) ??
    on.done({ state: 'away', stateVersion: on.revision, putAway: { ...on.signed, reason } }),
};
