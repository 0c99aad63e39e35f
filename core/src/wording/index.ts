export { dangerCauseText, neverText, poweringText, standingDangersText } from './dangers.ts';
export { choiceLines, choiceReason, factsReason } from './choices.ts';
export { durationText, percentText, voltsText, wattsText } from './figures.ts';
export {
  countText,
  dayText,
  figureText,
  firstLocale,
  isLocale,
  isTimeZone,
  type Manner,
  moneyText,
  plainFigure,
  writeAs,
  writtenAs,
} from './manner.ts';
export {
  changeText,
  codeText,
  readingValueText,
  conditionText,
  doubtText,
  faultGroupText,
  hazardText,
  layoutText,
  loadWordText,
  needText,
  quickProblemText,
  refusalText,
  schoolText,
  cameAlongText,
  oldSupplyText,
  priorityText,
  searchFieldText,
  stationStateText,
  stationText,
  strengthText,
  figureOf,
  instrumentKindText,
  instrumentName,
  limitsText,
  subjectText,
  unitOf,
  verdictLevel,
  verdictReason,
  verdictText,
} from './words.ts';
export {
  doubtsText,
  fitReasonText,
  loadFindingText,
  loadSentence,
  upgradeInWordsText,
  openInletText,
  problemOfLabel,
  schoolBecause,
  tooLargeText,
} from './loads.ts';
export {
  aboutText,
  absentText,
  checkTitle,
  checkWorth,
  conclusionSentence,
  contradictionText,
  findingGrounds,
  findingNames,
  findingSentence,
  mindChangerText,
  observationText,
  quotedWords,
  outcomeLabel,
  tallyText,
  twoFaultsText,
} from './diagnosing.ts';
export {
  bareMissingText,
  bareSentence,
  bareWordText,
  supplyMarkLines,
  supplyMarkText,
  openPointText,
  outNowText,
  proofNextText,
  proofText,
  stationLineText,
} from './stations.ts';
export {
  forecastText,
  logEventText,
  logProblemText,
  logShapeText,
  nextReadingText,
  pinExpectText,
  probedCodeText,
  probeWordText,
  sweepEndText,
  timeFormatText,
  troubleText,
  unreadRailsText,
} from './measuring.ts';
export {
  correctionText,
  criterionFigureText,
  criterionText,
  drawsText,
  fanSideText,
  measuredText,
  plugProblemText,
  remedyText,
  riskWord,
  routeText,
  sourceText,
  standingSentence,
  twelveOutputsText,
  worthReadingText,
} from './sizing.ts';
export { fittingText, protectionText } from './supply-names.ts';
export { codedAgainstPrint, crossedPinText, crossingSentence, crossingWordText, signalText } from './crossing.ts';
export {
  adapterNote,
  adapterRefusalText,
  foundHarmText,
  breachText,
  cableFiguresText,
  familyText,
  harnessWordText,
  hindranceText,
  inletCaution,
  kitCableText,
  openBecauseText,
  ownPlugText,
  pinRefusalText,
  placeText,
  seatCheckText,
  stateWordText,
} from './cabling.ts';
export { freeEndsText, stepCaution, stepPhaseText, stepText } from './steps.ts';
export { inletName, plugName } from './plugs.ts';
export { leftOpenText, saidDoubtText, saidText } from './machine-line.ts';
export { actText, type HistoryNames } from './history.ts';
export { type ClientWords, clientWords } from './client.ts';
export { figureDoubtText, labelReadProblemText } from './labels.ts';
export { driveLifeText, listedDoubtText, listingKindText, listingProblemText } from './listings.ts';
export { guideOfLead, leadCaution, leadKindText, leadStateText } from './leads.ts';
export { spokenPin, spokenRail, spokenReading, spokenTouch, spokenVerdict } from './spoken.ts';
