/** Which script ran and which style matched until the page settled. */
import type { CDPSession } from 'playwright-core';
import { unusedInScript, unusedInSheet, type CoverageRange } from '../../core/load/coverage';

export interface UnusedBytes {
	script: number;
	style: number;
}

export class CoverageCollector {
	#sheets = new Map<string, number>();

	constructor(private readonly session: CDPSession) {
		session.on('CSS.styleSheetAdded', ({ header }) => {
			if (/^https?:/.test(header.sourceURL)) this.#sheets.set(header.styleSheetId, header.length);
		});
	}

	/** Function by function, not block by block: the finer kind would slow the page's scripts down. */
	async start(): Promise<void> {
		await this.session.send('Profiler.enable');
		await this.session.send('Profiler.startPreciseCoverage', { callCount: false, detailed: false });
		await this.session.send('DOM.enable');
		await this.session.send('CSS.enable');
		await this.session.send('CSS.startRuleUsageTracking');
	}

	async take(): Promise<UnusedBytes> {
		const { ruleUsage } = await this.session.send('CSS.stopRuleUsageTracking');
		const { result } = await this.session.send('Profiler.takePreciseCoverage');
		const script = result
			.filter((one) => /^https?:/.test(one.url))
			.reduce((sum, one) => {
				const ranges = one.functions.flatMap((called) => called.ranges.map(({ startOffset, endOffset, count }): CoverageRange => ({ start: startOffset, end: endOffset, used: count > 0 })));
				return sum + unusedInScript(ranges);
			}, 0);
		let style = 0;
		for (const [id, length] of this.#sheets) {
			const ranges = ruleUsage.filter((rule) => rule.styleSheetId === id).map(({ startOffset, endOffset, used }) => ({ start: startOffset, end: endOffset, used }));
			style += unusedInSheet(length, ranges);
		}
		return { script, style };
	}
}
