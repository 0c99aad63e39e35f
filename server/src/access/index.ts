export { demand, demandAct, gate, holdToPerson, isLoopback, signedInput } from './gate.ts';
export { isOwnerless, makeOwnerCode } from './people.ts';
export { accessRoutes } from './routes.ts';
export { secondPerson } from './second-person.ts';
export { asRead } from './secrets.ts';
export { sessionsIn } from './sessions.ts';
export { KnownAccess, readAccessState, signAtFirst } from './state.ts';
