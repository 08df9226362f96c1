/** What the room of trials offers. */

export { trialCounters } from './queries/counters';
export { lateSeenOf } from './queries/lateView';
export {
	type Marker,
	type SettlingRow,
	insertMarker,
	markersOf,
	saveSettling,
	settlingsOf,
	stageMarkersAt
} from './queries/notes';
export { findSettleJob, finishSlots } from './queries/slots';
export { conditionsOfTrial } from './queries/trial';
export { insertTrial, markTrialRead, setTrialStatus, setTrialTimes, setUndoes } from './queries/trials';

export { rehearsalsOf } from './queries/trials';
