import { expect } from 'chai';
import { returnFindings } from '$core/trial/design/returnStage';
import type { TrialDesign, Verdict } from '$core/trial/types';
import { wordReturn } from '$core/wording/returnStage';
import { resultOf } from '../../support/results';

const stage = (id: number, baseline = false) => ({
	id,
	name: `Stage ${id}`,
	url: 'http://a.test',
	baseline,
	reference: false
});
const design: Pick<TrialDesign, 'kind' | 'arms' | 'returnStage'> = {
	kind: 'before-after',
	arms: [stage(1, true), stage(2), stage(3)],
	returnStage: 2
};
const result = (metric: 'lcp' | 'tbt' | 'wire', verdict: Verdict, arm: number) =>
	resultOf(metric, verdict, [-300, -400, -200], { arm });

describe('a stage in which the change is taken back', () => {
	const found = (...results: ReturnType<typeof result>[]) => returnFindings(design, results);

	it('shows that the change made what goes with it, and not what stays', () => {
		const findings = found(
			result('lcp', 'better', 2),
			result('lcp', 'same', 3),
			result('tbt', 'better', 2),
			result('tbt', 'better', 3),
			result('wire', 'worse', 2),
			result('wire', 'undecided', 3)
		);
		expect(findings.map(({ metric, code }) => [metric, code])).to.deep.equal([
			['lcp', 'gone'],
			['tbt', 'stays'],
			['wire', 'open']
		]);
		expect(wordReturn(findings)).to.equal(
			'The effect on largest paint went when the change was taken back, which speaks for the change as its cause. The effect on blocking time stayed when the change was taken back: something else may be its cause. Whether the effect on bytes transferred went when the change was taken back is not decided.'
		);
	});

	it('says nothing of what was not decided, before the return is judged, or without such a stage', () => {
		expect(found(result('lcp', 'undecided', 2), result('lcp', 'same', 3))).to.deep.equal([]);
		expect(found(result('lcp', 'better', 2))).to.deep.equal([]);
		expect(
			returnFindings({ ...design, returnStage: null }, [result('lcp', 'better', 2), result('lcp', 'same', 3)])
		).to.deep.equal([]);
		expect(wordReturn([])).to.equal('');
	});
});
