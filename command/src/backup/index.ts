export { backupCommand, beforeUpgradePath, restoreCommand } from './command.ts';
export { connected } from './database-tools.ts';
export { makeBackup } from './make.ts';
export { NightlyBackups } from './nightly.ts';
