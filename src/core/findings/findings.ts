/** What the rules find in one load. */
import type { LoadRecord } from '../load/record/record';
import type { Finding } from './finding';
import { inspect, type Beside } from './inspection';
import type { FindingRule } from './rule';
import { animationAsPicture } from './rules/animationAsPicture';
import { fontNotDrawn } from './rules/fontNotDrawn';
import { fontUnusedSigns } from './rules/fontUnusedSigns';
import { forOldBrowsers } from './rules/forOldBrowsers';
import { iconsAsFont } from './rules/iconsAsFont';
import { notMinified } from './rules/notMinified';
import { pictureOldFormat } from './rules/pictureOldFormat';
import { picturePoorlyPacked } from './rules/picturePoorlyPacked';
import { pictureSameTwice } from './rules/pictureSameTwice';
import { startsUnasked } from './rules/startsUnasked';
import { thirdPartyUnconfirmed } from './rules/thirdPartyUnconfirmed';
import { writesDocument } from './rules/writesDocument';
import { brokenRequest } from './rules/brokenRequest';
import { cookieWeight } from './rules/cookieWeight';
import { connectionLate } from './rules/connectionLate';
import { consoleError } from './rules/consoleError';
import { fontFar } from './rules/fontFar';
import { fontFormat } from './rules/fontFormat';
import { fontMany } from './rules/fontMany';
import { goingBackSlow } from './rules/goingBackSlow';
import { inlineWeight } from './rules/inlineWeight';
import { largePage } from './rules/largePage';
import { largestFadedIn } from './rules/largestFadedIn';
import { largestLateFound } from './rules/largestLateFound';
import { largestLazy } from './rules/largestLazy';
import { largestWithoutPriority } from './rules/largestWithoutPriority';
import { libraryTwice } from './rules/libraryTwice';
import { mediaPreloaded } from './rules/mediaPreloaded';
import { scriptNeverRun, styleNeverMatched } from './rules/neverUsed';
import { oldProtocol } from './rules/oldProtocol';
import { pageCacheMiss } from './rules/pageCacheMiss';
import { pictureEarly } from './rules/pictureEarly';
import { pressLost } from './rules/pressLost';
import { pictureTooLarge } from './rules/pictureTooLarge';
import { pictureWithoutRoom } from './rules/pictureWithoutRoom';
import { redirects } from './rules/redirects';
import { scriptInTheWay } from './rules/scriptInTheWay';
import { serverWait } from './rules/serverWait';
import { shiftByFont, shiftByInsertion, shiftByPicture } from './rules/shifts';
import { shortLifetime } from './rules/shortLifetime';
import { slotEmpty } from './rules/slotEmpty';
import { stepSlow } from './rules/stepSlow';
import { styleChain } from './rules/styleChain';
import { styleInTheWay } from './rules/styleInTheWay';
import { styleRecalculated } from './rules/styleRecalculated';
import { taskLong } from './rules/taskLong';
import { textHidden } from './rules/textHidden';
import { textPlainSent } from './rules/textPlainSent';
import { textWeaklyPacked } from './rules/textWeaklyPacked';
import { thirdPartyCost } from './rules/thirdPartyCost';
import { worksLate } from './rules/worksLate';

/** Version of the rules: what older ones found is found anew. */
export const FINDINGS_VERSION = '4';

const LIST: readonly FindingRule[] = [
	serverWait,
	redirects,
	pageCacheMiss,
	textPlainSent,
	textWeaklyPacked,
	shortLifetime,
	oldProtocol,
	cookieWeight,
	styleInTheWay,
	scriptInTheWay,
	styleChain,
	largestLateFound,
	largestLazy,
	largestWithoutPriority,
	largestFadedIn,
	connectionLate,
	textHidden,
	pictureTooLarge,
	pictureOldFormat,
	picturePoorlyPacked,
	pictureWithoutRoom,
	pictureEarly,
	animationAsPicture,
	pictureSameTwice,
	mediaPreloaded,
	fontFormat,
	fontUnusedSigns,
	fontNotDrawn,
	fontMany,
	fontFar,
	iconsAsFont,
	taskLong,
	scriptNeverRun,
	styleNeverMatched,
	notMinified,
	libraryTwice,
	forOldBrowsers,
	styleRecalculated,
	inlineWeight,
	writesDocument,
	shiftByFont,
	shiftByPicture,
	shiftByInsertion,
	slotEmpty,
	stepSlow,
	pressLost,
	goingBackSlow,
	thirdPartyCost,
	thirdPartyUnconfirmed,
	startsUnasked,
	worksLate,
	brokenRequest,
	consoleError,
	largePage
];

export interface Findings {
	findings: Finding[];
	/** Rules that threw: a fault of Zafra, told as such. The others went on. */
	faults: string[];
}

/**
 * @param record of a load that did not fail @param cdnHosts hosts that the site names as its own CDN
 * @param beside what was worked out of its bodies, and is written down of its hosts
 */
export function findingsOf(
	record: LoadRecord,
	cdnHosts: readonly string[] = [],
	{ rules = LIST, ...beside }: Beside & { rules?: readonly FindingRule[] } = {}
): Findings {
	const inspection = inspect(record, cdnHosts, beside);
	const faults: string[] = [];
	const found = rules.flatMap((rule) => {
		try {
			return rule(inspection);
		} catch (error) {
			faults.push(`${rule.name}: ${(error as Error).message}`.slice(0, 200));
			return [];
		}
	});
	return { findings: oncePerResource(found), faults };
}

/** The same resource twice in one load is one finding: the dearer one. */
function oncePerResource(findings: readonly Finding[]): Finding[] {
	const byKey = new Map<string, Finding>();
	for (const finding of findings) {
		const key = `${finding.rule}/${finding.resource.key}`;
		const before = byKey.get(key);
		if (!before || (finding.cost.bytes ?? 0) > (before.cost.bytes ?? 0)) byKey.set(key, finding);
	}
	return [...byKey.values()];
}
