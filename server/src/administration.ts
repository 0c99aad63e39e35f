// What whoever starts servers and keeps their data needs: a door of its own, so that a command that only stops a shop
// does not read the whole application first.
export { asRead, newSecretsKey, Secrets, secretsBy } from './access/secrets.ts';
export { migrate } from './database/migrate.ts';
export { placesOf, writablePlace } from './database/places.ts';
export { Primary } from './database/primary.ts';
export { asServer, giveServersRights, letServersIn, makeServerRole, serverRole } from './database/server-role.ts';
export { untilAnswers } from './database/until-answers.ts';
export {
  databaseOfShop,
  readShops,
  registrySchema,
  shopNameSchema,
  urlOfShop,
  type ShopEntry,
} from './shops/registry.ts';
