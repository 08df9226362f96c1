/** What the room of archive offers. */

export { underWayOf } from './queries/archive';
