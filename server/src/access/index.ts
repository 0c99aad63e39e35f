export { demand, demandAct, demandActs, gate, holdToPerson, isLoopback, signedInput } from './gate.ts';
export { countUnreadable, isOwnerless, makeOwnerCode } from './people.ts';
export { peopleRoutes } from './people-routes.ts';
export { wayInRoutes } from './way-in-routes.ts';
export { secondPerson } from './second-person.ts';
export { asRead, Secrets, secretsBy } from './secrets.ts';
export { SessionWatch } from './session-watch.ts';
export { sessions } from './sessions.ts';
export { KnownAccess, readAccessState, signAtFirst } from './state.ts';
