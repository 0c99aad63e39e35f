export { asRead, isOwnerless, makeOwnerCode, newSecretsKey, Secrets, secretsBy } from './access/index.ts';
export { createApp, type AppParts } from './app.ts';
export { ChangeFeed } from './changes/feed.ts';
export { Sweeps } from './instruments/sweep.ts';
export { putNetworkInstrument } from './instruments/store.ts';
export { InstrumentFailure, ScpiLink } from './instruments/scpi-link.ts';
export { StationKeeper } from './jobs/station-keeper.ts';
export { programName } from './program.ts';
export { Threads, Workers } from './workers/workers.ts';
export { createPool } from './database/pool.ts';
export { placesOf, writablePlace } from './database/places.ts';
export { Primary } from './database/primary.ts';
export { Shops } from './shops/shops.ts';
export {
  databaseOfShop,
  readShops,
  registrySchema,
  shopNameSchema,
  urlOfShop,
  type ShopEntry,
} from './shops/registry.ts';
export { untilAnswers } from './database/until-answers.ts';
export { migrate } from './database/migrate.ts';
export { asServer, giveServersRights, letServersIn, makeServerRole, serverRole } from './database/server-role.ts';
export { loadDemo } from './demo.ts';
export { BrokenKnowledge, loadModel, shippedKnowledge } from './knowledge.ts';
