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
export { holdsCluster } from './place.ts';
export { runProgram } from './programs.ts';
