/** A rule looks at one load and gives what it finds there. */
import type { Finding } from './finding';
import type { Inspection } from './inspection';

export type FindingRule = (inspection: Inspection) => Finding[];
