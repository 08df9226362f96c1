/** What the room of visits offers. */

export { checkPage, liveView } from './queries/live';
export { deleteOldDays, saveDay } from './queries/merge';
export { bucketsOfSite } from './queries/buckets';
export { bucketsWithVisits } from './queries/readings';
export { allSources, sourceOfSite } from './queries/sources';
export { deleteVisitsOf, DAY_MS, HOUR_MS, bucketId } from './queries/store';
export { type StoredBody, histogramsOf, saveHour } from './queries/writer';
