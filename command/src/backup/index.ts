export { backupCommand, beforeUpgradePath, putInPlace, restoreCommand } from './command.ts';
export { connected, databaseOf, otherDatabase } from './database-tools.ts';
export { makeBackup } from './make.ts';
export { backupByRule, backupFolder, lastBackupPath, NightlyBackups, noteBackup, type BackedUp } from './nightly.ts';
export { BadBackup, dropDatabase, restoreInto } from './read.ts';
