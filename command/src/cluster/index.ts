export {
  answers,
  clusterFolder,
  deleteCluster,
  ensureDatabase,
  livingProcess,
  runningCluster,
  setClusterAside,
  startCluster,
  stopCluster,
  type ClusterOptions,
  type RunningCluster,
} from './cluster.ts';
export { clusterPlace, holdsCluster } from './place.ts';
export { ownerOf, runProgram, type Owner } from './programs.ts';
