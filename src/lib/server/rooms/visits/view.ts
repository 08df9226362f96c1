/** What the room of visits offers. */

export { checkPage, liveView } from './queries/live';
export { deleteOldDays, saveDay } from './queries/merge';
export { placesOfSite } from './queries/places';
export { placesWithVisits } from './queries/readings';
export { allSources, sourceOfSite } from './queries/sources';
export { deleteVisitsOf, DAY_MS, HOUR_MS, placeId } from './queries/store';
export { type StoredBody, histogramsOf, saveHour } from './queries/writer';
