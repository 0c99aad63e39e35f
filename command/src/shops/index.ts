export { databasesOfShops, ownerUrl, prepareShop, shopsCluster } from './databases.ts';
export { listedShops, shopFolder, shopsPath } from './list.ts';
