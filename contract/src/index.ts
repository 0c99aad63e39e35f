export { figure, id, instant, jobCode, line, text, uuid, version } from './primitives.ts';
export { fieldErrors, type Problem, problemSchema } from './problem.ts';
export {
  type ImportLine,
  type ImportMessage,
  importMessageSchema,
  type ImportReport,
  importReportSchema,
  type ImportRow,
  priceSchema,
  progressType,
  supplyFileSchema,
  type SupplyMessage,
  supplyMessageSchema,
  supplyModelSchema,
} from './supply.ts';
export { knowledgeSchema } from './knowledge.ts';
export {
  type InstrumentMessage,
  instrumentMessageSchema,
  instrumentSchema,
  newTechnicianSchema,
  settingsMessageSchema,
  shopFileSchema,
  type ShopMessage,
  shopSchema,
  type Technician,
  codePrefixPattern,
  firstCodePrefix,
} from './shop.ts';
export { leaveOutSchema, type RecordMessage, recordSchema } from './record.ts';
export {
  type InstrumentTrouble,
  isPrivateAddress,
  type LiveEvent,
  liveQuerySchema,
  loadOffSchema,
  type NetworkInstrument,
  networkInstrumentSchema,
  networkInstrumentsSchema,
  newNetworkInstrumentSchema,
  powerGoodRequestSchema,
  type RunningSweepMessage,
  type SweepEnd,
  type SweepEvent,
  type SweepRequest,
  sweepRequestSchema,
  type SweepsMessage,
  sweepsSchema,
  type SweepStep,
} from './network-instrument.ts';
export { jobSchema, pinsSchema, seatsSchema, stepId, stepsSchema } from './job.ts';
export {
  type ActMessage,
  actMessageSchema,
  actSchema,
  type JobEvents,
  jobEventsSchema,
  type JobList,
  type JobListQuery,
  firstJobPage,
  type UsualMachine,
  usualMachinesSchema,
  jobListQuerySchema,
  jobListSchema,
  type NewJobMessage,
  newJobSchema,
  revisionHeader,
} from './act.ts';
export {
  mostPhotoBytes,
  mostPhotoPixels,
  mostPhotos,
  type Photo,
  photoEdgePixels,
  photoFormats,
  photoQuerySchema,
  photosSchema,
} from './photo.ts';
export {
  labelPrinterMessageSchema,
  labelPrinterSchema,
  labelQuerySchema,
  type LabelStock,
  labelStocks,
  printedSchema,
  printLabelsSchema,
} from './label.ts';
export {
  type JobFile,
  jobFileFormat,
  jobFileSchema,
  jobFileVersion,
  mostOriginalBytes,
  presentJobFile,
} from './job-file.ts';
export { computeSchemas, type ComputeVerb, computeVerbs } from './compute.ts';
export {
  shelfFileSchema,
  type Unit,
  type UnitMessage,
  unitMessageSchema,
  unitsSchema,
  type UnitState,
  unitStates,
} from './shelf.ts';
export {
  type OwnPart,
  ownPartMessageSchema,
  ownPartSchema,
  partColumns,
  partFromCells,
  partToCells,
} from './own-part.ts';
export { supplyColumns, supplyFromCells, supplyToCells } from './supply-csv.ts';
export {
  bagAdapterMessageSchema,
  bagAdapterSchema,
  bagCableMessageSchema,
  bagCableSchema,
  cableBagsFileSchema,
  cableBagsSchema,
  pinoutMessageSchema,
  pinoutSchema,
  proofMessageSchema,
  type BagAdapter,
  type BagCable,
  type CableBags,
  type CableProof,
  type Pinout,
} from './cable-bag.ts';
export {
  type ChangeMessage,
  changeMessageSchema,
  presenceBeatSeconds,
  presenceMessageSchema,
  type Present,
  presentSchema,
  presentSeconds,
} from './change.ts';
export { type Health, healthSchema, leastFreeBytes, oldBackupHours } from './health.ts';
