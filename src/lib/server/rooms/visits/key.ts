/** Keys by which the page views of a site are known; they are in its pages for all to read, and are no secret. */
import { randomBytes } from 'node:crypto';

export const drawKey = (): string => randomBytes(9).toString('base64url');
