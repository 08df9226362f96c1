/** A log of steps as it is drawn: a row a step. */
import type { StepDecision } from '../types';
import type { BoardMark } from './board';

/** A mark of a strip, with its word and as a sentence. */
export type StepMark = BoardMark & { short: string; word: string; text: string };

export interface StepStrips {
	/** Of this one and of the page, for lists. */
	key: string;
	condition: string;
	/** "Phone"; of a log on a sample "Phone, /timetable". */
	name: string;
	/** Against the stage before; of a step that takes one back, against the stage to which the page should return. */
	previous: StepMark[];
	/** Against the start. */
	start: StepMark[];
	/** Why it is not judged, in a sentence; empty where it is. */
	held: string;
	/** Of a step that takes one back: whether the page is where it was. */
	returned: string;
	/** Of the page as it was: its first metric with its range. */
	figure: string;
}

export interface StepRow {
	stage: number;
	arm: number;
	name: string;
	/** What was noted of the change; empty where that is its name. */
	note: string;
	fileName: string | null;
	file: string | null;
	decision: StepDecision;
	decisionNote: string;
	/** The step that it takes back. */
	undoes: string | null;
	isMeasured: boolean;
	broke: string;
	/** What the rules of the worklist found gone, left and new since the stage before; empty where nothing is told. */
	found: string;
	strips: StepStrips[];
}

export interface StepsView {
	planned: number;
	/** Steps so far, beside the page as it was. */
	made: number;
	mayGrow: boolean;
	/** The step that was taken back and must be measured without first. */
	undone: string | null;
	metrics: string[];
	/** Pages that are judged together; empty where it is one. */
	pages: string[];
	rows: StepRow[];
}
