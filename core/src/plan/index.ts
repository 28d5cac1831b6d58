export { comparePlans, type PlanChanges } from './comparePlans';
export { listLookAlikes, listWireGroups, type WireGroup } from './colour/listLookAlikes';
export { isLookAlike } from './colour/measureColours';
export { findBladeSleeve } from './terminate/chooseBladeSleeve';
export type { ClearSleeve } from './mark/chooseClear';
export { countBands, countBandsByColour, listBandedBreakouts } from './colour/countBands';
export { listBases, listSchemeLooks } from './colour/listSchemeLooks';
export { createTakenFor } from './colour/createTakenFor';
export { findLeadLook, listLeadLooks } from './colour/findLeadLook';
export { proposeScheme, type SchemeProposal } from './colour/proposeScheme';
export { proposeColours, type ColourProposal } from './colour/proposeColours';
export { buildUp, type BuiltPiece } from './dress/buildUp';
export {
  DRESS_ROLE_WORDS,
  listSlid,
  type DressPiece,
  type Parking,
  type PlannedBreakoutDress,
  type PlannedEndDress,
} from './dress/dressTypes';
export { findDressing, listLooseRuns } from './dress/planDress';
export { planParking } from './dress/planParking';
export { compareCoverings } from './cover/chooseCoverings';
export type { CoveringOption } from './cover/listCoveringOptions';
export { isCoveringFit, measureGrip, measureCoveringCut, measureCoveringOutside, measureTape } from './cover/measureCovering';
export { chooseSplices, type SpliceTree } from './splice/chooseSplices';
export { layoutLegend, LETTER_SHARE, LINE_SHARE, measureFlat, type Legend } from './mark/layoutLegend';
export { listDeviceLabels, listMarks, listZoneLabels, toLabelOrders, type LabelOrder, type PlannedMark } from './mark/listMarks';
export { listNearNames, listTwoMeanings } from './mark/listNearNames';
export { leadThrough, measureLeastBore, orderFeed, type FedPiece, type FeedOrder, type FeedPiece } from './feed/orderFeed';
export type { PlannedFeed, PlannedFeedPiece } from './feed/feedTypes';
export { listSharing } from './feed/shareHoles';
export { findFreeTurn } from './feed/planFeeds';
export { measureCure, measurePottingFill, measurePottingLoop, type PottingFill } from './potting/measurePotting';
export { planPottings, type PlannedPotting } from './potting/planPottings';
export type { PlannedScreen, PlannedStud } from './terminate/endTypes';
export { fitJunction, listJunctionPairs, listJunctionPlaces, type JunctionFit, type JunctionPair } from './junction/fitJunction';
export { countJunction, listEndsBeyond, measureJunctionWorth, type JunctionCount, type JunctionWorth } from './junction/countJunction';
export { assignKeys } from './swap/assignKeys';
export { judgeSwap, type Reach, type Swap } from './swap/judgeSwap';
export { measureReaches, type Neighbours } from './swap/measureReaches';
export { planClips, type PlannedClips } from './support/planClips';
export { countBetween, spreadClips } from './support/spreadClips';
export { createPlanner, plan, type Planner } from './plan';
export { countPassing } from './length/countPassing';
export { isHeldFromCutting, listCoverHolds, toHoldWords } from './length/listHolds';
export { findStandard } from './findStandard';
export { createSizes, type SizeRange } from './size/createSizes';
export * from './electrical';
export { createTree, measureSegment } from './route/createTree';
export { listDonorDispositions, type Ledger } from './listDonorDispositions';
export { listWireRuns } from './route/listWireRuns';
export { measureBraid } from './cover/measureBraid';
export { measureHeat, measureSurfaceHeat, type Heat, type HeatInputs } from './heat/measureHeat';
export { measurePackingBound, packCircles } from './bundle/packCircles';
export { createAmbients, measureContactPeak, measureContactRating } from './terminate/measureContactRating';
export { measurePathSigma, measureRough } from './length/measureRough';
export { measureSplicePlace, type SpliceContext, type TakenPlace } from './splice/measureSplicePlace';
export { measureHalfBarrel } from './route/routeLoom';
export { measurePitchDiameter, measureTakeUp } from './length/measureTakeUp';
export { toSumWords } from './toSumWords';
export type * from './types';
export type { LaidLayer, LaidSlot, LaidStretch, LayupMark, Thread } from './layup/layupTypes';
export { listLaidCircles, type LaidCircle } from './layup/listLaidCircles';
export { toClockWords, toThreadWords } from './layup/toThreadWords';
export { toLayerWords } from './layup/listLayerTakeUps';
export { priceBreakouts, type PricedBreakout, type WayOn } from './layup/priceBreakouts';
export { searchLayups, USUAL_TRIES, type LoomSearch } from './layup/searchLayups';
export { measureModeHeats } from './heat/measureModeHeats';
