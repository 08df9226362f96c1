/** Trials as rows of lists and of the Desk. */
import { roundsOfNextLook } from '$core/trial/design/looks';
import { publicStatus } from '$core/trial/design/status';
import type { Db } from '../../base/db/connection';
import { messageOf } from './answer';
import { listedAnswer, type ListedAnswer } from './listedAnswer';
import { type Trial } from './trial';
import { countTrials, hostsOfTrials, listTrials, listTrialsIn, type TrialFilter } from './queries/trials';

export { listTrials } from './queries/trials';

const NO_ANSWER: ListedAnswer = { strips: [], more: 0 };

/** Rows of a page of the list; on a phone each row with its answer is a fifth of the screen. */
export const ROWS = 25;
export const ROWS_ON_A_PHONE = 10;

/** @param page from 1; one beyond the last shows the last */
export function trialListView(db: Db, filter: TrialFilter, page: number, rows = ROWS) {
	const total = countTrials(db, filter);
	const pages = Math.max(1, Math.ceil(total / rows));
	const shown = Math.min(pages, Math.max(1, Math.trunc(page) || 1));
	return {
		total,
		all: countTrials(db, { clientId: filter.clientId }),
		page: shown,
		pages,
		rows,
		hosts: hostsOfTrials(db, filter.clientId),
		trials: listTrials(db, filter, rows, (shown - 1) * rows).map((trial) => rowView(db, trial))
	};
}

function rowView(db: Db, trial: Trial) {
	return {
		id: trial.id,
		question: trial.question,
		client: trial.clientName ?? '',
		kind: trial.design.kind,
		status: publicStatus(trial.status),
		done: trial.progress.done,
		total: trial.progress.total,
		when: trial.startedAt ?? trial.createdAt,
		answer: trial.status === 'done' ? listedAnswer(db, trial) : NO_ANSWER
	};
}

/** Most of each part of the Desk; the list of trials has the rest. */
const DESK_ROWS = 12;
const DESK_RECENT = 6;

export function deskView(db: Db, clientId: number | null) {
	const card = (trial: Trial) => ({
		id: trial.id,
		question: trial.question,
		clientName: trial.clientName,
		status: publicStatus(trial.status),
		message: messageOf(db, trial),
		progress: trial.progress,
		nextLook: roundsOfNextLook(trial.design),
		endedAt: trial.endedAt,
		answer: trial.status === 'done' ? listedAnswer(db, trial) : NO_ANSWER
	});
	const limit = DESK_ROWS;
	return {
		where: 'Desk',
		running: listTrialsIn(db, ['running', 'queued'], { clientId, limit }).map(card),
		waiting: listTrialsIn(db, ['waiting', 'paused', 'draft', 'stopped', 'failed'], { clientId, limit }).map(card),
		unread: listTrialsIn(db, ['done'], { clientId, unread: true, limit }).map(card),
		recent: listTrialsIn(db, ['done'], { clientId, unread: false, limit: DESK_RECENT }).map(card)
	};
}

export type TrialListView = ReturnType<typeof trialListView>;
