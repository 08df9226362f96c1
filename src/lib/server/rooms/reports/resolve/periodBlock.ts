/** What happened at a client between two days: trials, real visitors, what was done, what is open. */
import type { BlockOf } from '$core/report/document';
import type { BlockBody } from '$core/report/view';
import { DEVICE_CLASSES } from '$core/field/reading';
import { localNumber } from '$core/wording/localNumber';
import { wordDay } from '$core/wording/report';
import { fieldState } from './listBlocks';
import { chosenPageNames } from '../../pages/chosen';
import { listTrials } from '../../trials/listView';
import { lastLine } from '../queries/worksheet';
import type { Material } from '../material';
import { watchedLines } from './watchBlocks';
import { sitesOf } from '../../clients/view';
import { fieldRows, markersOfSite } from '../../field/view';

type Period = Pick<BlockOf<'period'>, 'from' | 'until'>;

const MOST_TRIALS = 500;
const OPEN_STATES: readonly string[] = ['todo', 'waiting'];
const pathOf = (url: string) => new URL(url).pathname;

export function periodBlock(material: Material, { from, until }: BlockOf<'period'>): BlockBody {
	const { words, clientId } = material;
	if (clientId === null) return { kind: 'missing', why: words.say('report.missing.client') };
	const period = { from, until };
	const watched = watchedLines(material, clientId, (day) => isWithin(day, period));
	const groups = [
		['trials', trialLines(material, clientId, period)],
		['field', fieldLines(material, clientId, period)],
		['watches', watched ?? [words.say('report.period.watches.unread')]],
		['markers', markerLines(material, clientId, period)],
		['open', openLines(material, clientId)]
	] as const;
	return {
		kind: 'lines',
		groups: groups.map(([part, lines]) => ({
			title: words.say(`report.period.${part}`),
			lines: lines.length ? lines : [words.say(`report.period.${part}.none`)]
		}))
	};
}

const isWithin = (day: string, { from, until }: Period) => day >= from && day <= until;

/** The answer of each trial that ended then; a gain that is not decided is not called one. */
function trialLines(material: Material, clientId: number, period: Period): string[] {
	return listTrials(material.db, { clientId, status: 'done' }, MOST_TRIALS)
		.filter(({ endedAt }) => endedAt !== null && isWithin(endedAt.slice(0, 10), period))
		.flatMap(({ id, question }) =>
			(material.trial(id)?.boards ?? []).flatMap(({ name, answers }) =>
				answers.map(({ sentence }) =>
					material.words.say('report.period.trial', {
						question,
						conditions: name,
						sentence: localNumber(sentence, material.words.language)
					})
				)
			)
		);
}

/** Pages whose newest window ended then, and stood otherwise in the window before. */
function fieldLines({ db, words }: Material, clientId: number, period: Period): string[] {
	const rows = fieldRows(db, clientId);
	if (rows.every(({ assessment }) => assessment === 'no-data')) return [words.say('report.period.field.no-data')];
	return rows
		.filter(
			({ until, earlier, assessment }) =>
				until !== null && isWithin(until, period) && earlier !== null && earlier.assessment !== assessment
		)
		.map(({ url, device, earlier, assessment, metrics }) =>
			words.say('report.period.field.moved', {
				page: pathOf(url),
				device: words.say(`report.field.${device}`),
				before: fieldState(words, earlier!),
				after: fieldState(words, { assessment, metrics })
			})
		);
}

function markerLines({ db, words }: Material, clientId: number, period: Period): string[] {
	return sitesOf(db, clientId)
		.filter(({ role }) => role === 'own')
		.flatMap(({ id }) => markersOfSite(db, id))
		.filter(({ day }) => isWithin(day, period))
		.sort((a, b) => a.day.localeCompare(b.day))
		.map((marker) =>
			words.say('report.period.marker', { day: wordDay(marker.day, words.language), words: marker.words })
		);
}

/** Of chosen pages, as their worksheet stands now. */
function openLines({ db, words }: Material, clientId: number): string[] {
	return chosenPageNames(db, clientId).flatMap(({ id, url }) =>
		DEVICE_CLASSES.flatMap((device) => {
			const line = lastLine(db, id, device);
			if (!line || !OPEN_STATES.includes(line.state)) return [];
			return [
				words.say('report.period.line', {
					page: pathOf(url),
					device: words.say(`report.field.${device}`),
					state: words.say(`report.sheet.${line.state}`),
					note: line.note || 'none'
				})
			];
		})
	);
}
