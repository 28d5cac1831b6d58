export { createCommand, joinCommands, type Command } from './command';
export { agreeScope } from './brief/agreeScope';
export { departFromHouse } from './brief/departFromHouse';
export { createDonorId, decideDonorWire, importDonor, setDonorWire } from './brief/donors';
export { mateEnds, takeMateApart } from './brief/mates';
export { addOpenItem, answerOpenItem, placeAnchor, setOpenItem, settleAnchor, strikeOpenItem } from './brief/openItems';
export { addProving, setFirstStart, setProving, setReusedWire, strikeProving } from './brief/provings';
export { addTask, setTask, strikeTask } from './brief/tasks';
export { setBrief, workTo, type BriefFacts } from './brief/setBrief';
export { takeWaiverBack, waiveFinding } from './brief/waiveFinding';
export { addZone, removeZone, setZone } from './brief/zones';
export { keepCircuit, removeCircuit } from './circuit/circuits';
export { addPart, removePart } from './circuit/parts';
export { chooseLook, recolour } from './circuit/recolour';
export { setPinNeed } from './circuit/setPinNeed';
export { addDevice, decideDevice, putDevice, setDevice, strikeDevice, takeDeviceOff } from './device/devices';
export { keepTemplate } from './device/keepTemplate';
export { setDuty, setLoadCurrent, setRating } from './power/loads';
export { setEnabledBy, setIsolator, setLinkStates, setPosition, type NamedLink } from './power/switches';
export { addMode, removeMode, renameMode, setEngine, setSource, setStud } from './power/source';
export { addLoomEnd, removeLoomEnd, renameEnd, setEnd, setFamily, setWireLoop, type EndPlace } from './route/ends';
export { addFamily, addLoom, createLoomId, importLoom } from './route/looms';
export { gatherTails, type Gathering } from './route/gatherTails';
export {
  addNode,
  clampDatum,
  leaveAt,
  moveDatumBy,
  moveNode,
  setBeside,
  setDrill,
  setFeed,
  setHole,
  takeNodeOut,
  type NodePlace,
} from './route/nodes';
export { setBoot, setDressing, setTransition } from './route/dress';
export {
  foldRun,
  freeFork,
  hangPrint,
  mirrorBoard,
  readBar,
  setBoard,
  setPrinter,
  takeBoard,
  turnFork,
  type BoardMoves,
} from './route/board';
export { pinLayer, setBundling, setLeaves, setRunBundling, takeLayup } from './route/layups';
export {
  setCovering,
  setFitted,
  setMethod,
  setReading,
  setRun,
  setRunZone,
  setSecondReading,
  readClipPlaces,
  setClips,
  setSlideOn,
  setStatus,
  type RunPlace,
} from './route/runs';
