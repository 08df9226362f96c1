/** Notices of watches, and how they were delivered. */
import type { Change } from '$core/watch/history';
import { nowIso, sql, type Db } from '../../../base/db/connection';
import { NotPossible } from '../../../base/refusal';
import type { Reading } from './readings';
import type { Watch } from './watches';

interface NoticeBody {
	kind: 'change' | 'break' | 'trouble';
	title: string;
	/** "between 3 and 10 November 2026"; empty where it does not apply. */
	when: string;
	/** How sure, why, what to look at: sentences. */
	lines: string[];
	/** Path within Zafra. */
	path: string;
	page: number | null;
	condition: string | null;
	changes: Change[];
}

export interface Notice {
	id: number;
	watchId: number;
	at: string;
	readAt: string | null;
	body: NoticeBody;
}

/** Readings that are older were recorded elsewhere: nobody waits for word of them. */
const STILL_NEWS_DAYS = 21;

const DAY_MS = 86_400_000;

export function insertNotice(
	db: Db,
	{ watch, key, reading, body }: { watch: Watch; key: string; reading: Reading | undefined; body: NoticeBody }
): void {
	if (!reading) return;
	const at = reading.endedAt ?? reading.plannedAt;
	const isNews = Date.now() - Date.parse(at) < STILL_NEWS_DAYS * DAY_MS;
	const notice = { watchId: watch.id, key, at, body: JSON.stringify(body), readAt: isNews ? null : at };
	const { changes, lastInsertRowid } = sql(
		db,
		`INSERT OR IGNORE INTO watch_notice (watch_id, key, at, body, read_at) VALUES (@watchId, @key, @at, @body, @readAt)`
	).run(notice);
	if (changes === 0) {
		sql(db, 'UPDATE watch_notice SET body = @body WHERE watch_id = @watchId AND key = @key').run({
			watchId: watch.id,
			key,
			body: notice.body
		});
		return;
	}
	// What was recorded for a demonstration, or came with a client from elsewhere, is told to nobody outside.
	if (!isNews || reading.why === 'recorded' || watch.state === 'paused') return;
	const { mail, hook } = watch.settings.notices;
	for (const target of [...mail.map((address) => `mail:${address}`), ...(hook ? [`hook:${hook}`] : [])])
		sql(db, `INSERT INTO notice_delivery (notice_id, target, state, next_at) VALUES (?, ?, 'waiting', ?)`).run(
			lastInsertRowid,
			target,
			nowIso()
		);
}

type NoticeRow = Omit<Notice, 'body'> & { body: string };

const SELECT = `SELECT watch_notice.id, watch_id AS watchId, at, read_at AS readAt, body FROM watch_notice`;

const asNotice = (row: NoticeRow): Notice => ({ ...row, body: JSON.parse(row.body) as NoticeBody });

const MOST_SHOWN = 20;

/** Nobody has read them; newest first. */
export function unreadNotices(db: Db, clientId: number | null): (Notice & { watchName: string; clientName: string })[] {
	return sql<NoticeRow & { watchName: string; clientName: string }>(
		db,
		`SELECT watch_notice.id, watch_id AS watchId, at, read_at AS readAt, body, watch.name AS watchName,
			client.name AS clientName FROM watch_notice
			JOIN watch ON watch.id = watch_id JOIN client ON client.id = client_id
			WHERE read_at IS NULL AND (@clientId IS NULL OR client_id = @clientId) AND client.archived_at IS NULL
			ORDER BY at DESC, watch_notice.id DESC LIMIT ${MOST_SHOWN}`
	)
		.all({ clientId })
		.map(({ watchName, clientName, ...row }) => ({ ...asNotice(row), watchName, clientName }));
}

/** All of a watch, newest first. */
export function noticesOfWatch(db: Db, watchId: number): Notice[] {
	return sql<NoticeRow>(db, `${SELECT} WHERE watch_id = ? ORDER BY at DESC, id DESC`).all(watchId).map(asNotice);
}

export function findNotice(db: Db, id: number): Notice | null {
	const row = sql<NoticeRow>(db, `${SELECT} WHERE watch_notice.id = ?`).get(id);
	return row ? asNotice(row) : null;
}

export function markRead(db: Db, id: number): void {
	if (!findNotice(db, id)) throw new NotPossible(404, `There is no notice ${id}.`);
	sql(db, 'UPDATE watch_notice SET read_at = coalesce(read_at, ?) WHERE id = ?').run(nowIso(), id);
}

export interface Delivery {
	noticeId: number;
	target: string;
	state: 'waiting' | 'sent' | 'given-up';
	tries: number;
	problem: string | null;
}

const DELIVERY = 'SELECT notice_id AS noticeId, target, state, tries, problem FROM notice_delivery';

export function dueDeliveries(db: Db, now: string): Delivery[] {
	return sql<Delivery>(db, `${DELIVERY} WHERE state = 'waiting' AND next_at <= ? ORDER BY next_at LIMIT 20`).all(now);
}

export function deliveriesOfWatch(db: Db, watchId: number): Delivery[] {
	return sql<Delivery>(
		db,
		`${DELIVERY} WHERE notice_id IN (SELECT id FROM watch_notice WHERE watch_id = ?) ORDER BY notice_id DESC LIMIT 50`
	).all(watchId);
}

export function saveDelivery(db: Db, { noticeId, target, state, tries, problem }: Delivery, nextAt: string): void {
	sql(
		db,
		'UPDATE notice_delivery SET state = ?, tries = ?, problem = ?, next_at = ? WHERE notice_id = ? AND target = ?'
	).run(state, tries, problem, nextAt, noticeId, target);
}
