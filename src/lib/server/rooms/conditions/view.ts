/** What the room of conditions offers. */

export { listConditions } from './queries/saved';
export { type NamedVersion, freezeConditions, thawConditions } from './queries/versions';
