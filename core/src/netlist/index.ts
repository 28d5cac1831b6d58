export { createNetlist, findNetOf, type Netlist, type NetlistEdge, type NetlistNet, type NetlistNode } from './createNetlist';
export { createNetMap, type MappedNet } from './createNetMap';
export { findPin, listNetPins, toBox, toPinWords, toTakeOut, type NetPin } from './listNetPins';
export { listNets, listOtherSides, type JoinedCircuits } from './listNets';
export { listSwitchgearLinks, type SwitchgearLink } from './listSwitchgearLinks';
export { toCircuitKey, toPinKey, type CircuitPlace, type JoinedWire, type PinPlace, type WireEnd } from './types';
