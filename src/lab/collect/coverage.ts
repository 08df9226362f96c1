/**
 * Which script ran until the page settled, and which style matches then. Of style nothing is asked before: keeping
 * count of rules while a page loads reads its sheets a second time, and held a phone's first paint up by a quarter.
 */
import type { UnusedBytes } from '$core/load/record/assemble';
import type { CDPSession } from 'playwright-core';
import type { NetworkCollector } from './network';
import { servingFromWhatCame } from './servedAgain';
import { unusedSpansOfScript, unusedSpansOfSheet, type CoverageRange, type Span } from '$core/load/requests/coverage';

export class CoverageCollector {
	#sheets = new Map<string, { url: string; length: number }>();

	/** @param session of the load, in which script is counted */
	constructor(private readonly session: CDPSession) {}

	/** Function by function, not block by block: the finer kind would slow the page's scripts down. */
	async start(): Promise<void> {
		await this.session.send('Profiler.enable');
		await this.session.send('Profiler.startPreciseCoverage', { callCount: false, detailed: false });
	}

	/** Of the settled page. @param asking session in which alone style is asked of @param network what came */
	async take(asking: CDPSession, network: NetworkCollector): Promise<UnusedBytes> {
		const { result } = await this.session.send('Profiler.takePreciseCoverage');
		const ruleUsage = await servingFromWhatCame(asking, this.session, network, () => this.#rulesThatMatch(asking));
		const byUrl = new Map<string, number>();
		const spans = new Map<string, Span[]>();
		const add = (url: string, unused: Span[]): number => {
			const length = unused.reduce((sum, [from, to]) => sum + to - from, 0);
			byUrl.set(url, (byUrl.get(url) ?? 0) + length);
			if (!spans.has(url)) spans.set(url, unused);
			return length;
		};
		let script = 0;
		for (const coverage of result) {
			if (!/^https?:/.test(coverage.url)) continue;
			const ranges = coverage.functions.flatMap((called) =>
				called.ranges.map(({ startOffset, endOffset, count }): CoverageRange => ({
					start: startOffset,
					end: endOffset,
					used: count > 0
				}))
			);
			script += add(coverage.url, unusedSpansOfScript(ranges));
		}
		let style = 0;
		for (const [id, { url, length }] of this.#sheets) {
			const ranges = ruleUsage
				.filter((rule) => rule.styleSheetId === id)
				.map(({ startOffset, endOffset, used }) => ({ start: startOffset, end: endOffset, used }));
			style += add(url, unusedSpansOfSheet(length, ranges));
		}
		return { script, style, byUrl, spans };
	}

	/** Each rule is matched anew; afterwards the page is left alone again, for what is still to be measured on it. */
	async #rulesThatMatch(session: CDPSession) {
		session.on('CSS.styleSheetAdded', ({ header }) => {
			if (/^https?:/.test(header.sourceURL))
				this.#sheets.set(header.styleSheetId, { url: header.sourceURL, length: header.length });
		});
		await session.send('DOM.enable');
		await session.send('CSS.enable');
		await session.send('CSS.startRuleUsageTracking');
		const { ruleUsage } = await session.send('CSS.stopRuleUsageTracking');
		await session.send('CSS.disable');
		await session.send('DOM.disable');
		return ruleUsage;
	}
}
