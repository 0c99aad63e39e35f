export {
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
export { clusterPlace } from './place.ts';
export { ownerOf, type Owner } from './programs.ts';
