/** What the room of labs offers. */

export { type CalmHour, calmHours, recentSpeeds, saveQuietMinute } from './queries/calmRows';
export { type LabState, beat, deleteLab, listLabs, saveLab } from './queries/labs';
