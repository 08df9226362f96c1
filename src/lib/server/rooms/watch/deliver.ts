/** Sending notices: by mail over SMTP and by webhook, signed; what fails is tried again, later each time. */
import { createHmac, randomBytes } from 'node:crypto';
import { createTransport } from 'nodemailer';
import { WATCH_WORDS } from '$core/wording/watch';
import { nowIso, type Db } from '../../base/db/connection';
import { readFact, writeFact } from '../../base/db/facts';
import { fetchOutward, OutwardFault, type Outward } from '../../base/outward';
import type { Log } from '../../base/log';
import type { MailSettings } from '../../base/settings';
import { dueDeliveries, findNotice, saveDelivery, type Delivery, type Notice } from './queries/notices';

export interface DeliverySettings {
	mail: MailSettings;
	publicUrl: string;
	outward: Outward;
	/** For a hook that does not answer, ms. */
	withinMs?: number;
}

const WITHIN_MS = 10_000;
const MOST_ANSWER_BYTES = 10_000;
const MINUTE_MS = 60_000;
/** After the first try: in 1, 5, 30 minutes, 2 and 12 hours; then it is given up. */
const AGAIN_MINUTES = [1, 5, 30, 120, 720];
const SECRET = 'webhook secret';

/** What a receiver checks a notice with: one for this Zafra. */
export function hookSecret(db: Db): string {
	const existing = readFact(db, SECRET);
	if (existing) return existing;
	const secret = randomBytes(32).toString('base64url');
	writeFact(db, SECRET, secret);
	return secret;
}

/** HMAC with SHA-256 (RFC 2104) over the moment, a dot and the body, as lower-case hex digits. */
export function signatureOf(secret: string, moment: string, body: string): string {
	return createHmac('sha256', secret).update(`${moment}.${body}`).digest('hex');
}

/** Why a delivery did not succeed, in words; the try may be repeated or not. */
class NotDelivered extends Error {
	constructor(
		message: string,
		readonly isFinal = false
	) {
		super(message);
	}
}

/** Send what is due. @returns how many were sent */
export async function deliverDue(db: Db, settings: DeliverySettings, log: Log): Promise<number> {
	let sent = 0;
	for (const delivery of dueDeliveries(db, nowIso())) {
		const notice = findNotice(db, delivery.noticeId);
		if (!notice) continue;
		try {
			await deliver(db, delivery, notice, settings);
			saveDelivery(db, { ...delivery, state: 'sent', tries: delivery.tries + 1, problem: null }, nowIso());
			sent++;
		} catch (error) {
			const problem = (error as Error).message.slice(0, 300);
			log.warn({ target: delivery.target.split(':')[0], problem }, 'a notice could not be delivered');
			saveDelivery(db, ...afterFailure(delivery, problem, error instanceof NotDelivered && error.isFinal));
		}
	}
	return sent;
}

function afterFailure(delivery: Delivery, problem: string, isFinal: boolean): [Delivery, string] {
	const tries = delivery.tries + 1;
	const minutes = AGAIN_MINUTES[tries - 1];
	const state = isFinal || minutes === undefined ? ('given-up' as const) : ('waiting' as const);
	return [{ ...delivery, state, tries, problem }, new Date(Date.now() + (minutes ?? 0) * MINUTE_MS).toISOString()];
}

function deliver(db: Db, { target }: Delivery, notice: Notice, settings: DeliverySettings): Promise<void> {
	const address = target.slice(target.indexOf(':') + 1);
	return target.startsWith('mail:') ? mail(address, notice, settings) : post(db, address, notice, settings);
}

async function mail(
	to: string,
	{ body }: Notice,
	{ mail: { server, from }, publicUrl }: DeliverySettings
): Promise<void> {
	if (!server) throw new NotDelivered('No mail server is set: ZAFRA_SMTP names it.');
	const transport = createTransport({ url: server, connectionTimeout: WITHIN_MS, socketTimeout: WITHIN_MS });
	const url = publicUrl + body.path;
	try {
		await transport.sendMail({
			from,
			to,
			subject: WATCH_WORDS.say('mail.subject', { title: body.title }),
			text: [
				body.when ? `${body.title}, ${body.when}.` : `${body.title}.`,
				...body.lines,
				WATCH_WORDS.say('mail.link', { url })
			].join('\n\n')
		});
	} catch (error) {
		const { responseCode, response } = error as { responseCode?: number; response?: string };
		// A reply of 5yz is permanent (RFC 5321, section 4.2.1).
		if (responseCode && responseCode >= 500)
			throw new NotDelivered(`The mail server refused: ${response ?? responseCode}`, true);
		throw new NotDelivered(`The mail server could not be used: ${(error as Error).message}`);
	} finally {
		transport.close();
	}
}

async function post(
	db: Db,
	address: string,
	{ id, watchId, at, body }: Notice,
	{ outward, publicUrl, withinMs = WITHIN_MS }: DeliverySettings
): Promise<void> {
	const { path, ...told } = body;
	const text = JSON.stringify({ notice: id, watch: watchId, at, url: publicUrl + path, ...told });
	const moment = nowIso();
	const headers = {
		'content-type': 'application/json',
		'content-length': String(Buffer.byteLength(text)),
		'x-zafra-moment': moment,
		'x-zafra-signature': signatureOf(hookSecret(db), moment, text)
	};
	const limits = { withinMs, mostBytes: MOST_ANSWER_BYTES, mostRedirects: 0, post: { body: text, headers } };
	const { status } = await fetchOutward(address, outward, limits).catch((error: unknown) => {
		throw error instanceof OutwardFault ? faultWords(error) : error;
	});
	if (status >= 200 && status < 300) return;
	if (status >= 300 && status < 400)
		throw new NotDelivered('The address leads elsewhere: write the one that takes the notice itself.', true);
	const isFinal = status === 410;
	throw new NotDelivered(`The address answered with status ${status}.`, isFinal);
}

function faultWords({ fault, host }: OutwardFault): NotDelivered {
	if (fault === 'private-address')
		return new NotDelivered(`${host} is an address within a private network: it is not asked.`, true);
	if (fault === 'no-answer') return new NotDelivered(`${host} did not answer in time.`);
	return new NotDelivered(`${host} could not be reached (${fault}).`);
}
