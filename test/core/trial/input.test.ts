import { expect } from 'chai';
import * as v from 'valibot';
import { NewTrialInput } from '$core/trial/design/input';

describe('the door for a new trial', () => {
	const good = {
		question: 'Does it?',
		kind: 'side-by-side',
		arms: [
			{ name: 'A', url: 'http://a.test/' },
			{ name: 'B', url: 'https://b.test/x' }
		],
		conditions: ['phone'],
		rounds: 10,
		warmups: 1
	};
	const issues = (change: object) => {
		const result = v.safeParse(NewTrialInput, { ...good, ...change });
		return result.success ? [] : result.issues.map((issue) => `${v.getDotPath(issue)}: ${issue.message}`);
	};

	it('lets a good one in', () => expect(issues({})).to.deep.equal([]));

	it('says where and what is wrong with each bad one', () => {
		expect(issues({ question: '  ' })[0]).to.match(/^question: Write the question/);
		expect(issues({ arms: good.arms.slice(0, 1) })[0]).to.match(/^arms: .*at least two/);
		expect(issues({ arms: [good.arms[0], { name: 'B', url: 'ftp://b.test' }] })[0]).to.match(/^arms\.1\.url: .*http/);
		expect(issues({ arms: [good.arms[0], { name: 'B', url: 'not an address' }] })[0]).to.match(/^arms\.1\.url/);
		expect(issues({ arms: [good.arms[0], { name: 'a', url: 'http://b.test' }] })[0]).to.match(/name of its own/);
		for (const rounds of [0, 500, 2.5, NaN, '10']) expect(issues({ rounds })[0]).to.match(/^rounds: .*from 1 to 100/);
		expect(issues({ conditions: [] })[0]).to.match(/^conditions: /);
		expect(issues({ primary: ['fid'] })[0]).to.match(/no such metric/);
	});
});
