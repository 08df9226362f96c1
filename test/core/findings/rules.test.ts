/** Each rule on a record that has it, worked out by hand, and on one that is clean of it. */
import { expect } from 'chai';
import { RULE_IDS, type Finding, type RuleId } from '$core/findings/finding';
import { findingsOf } from '$core/findings/findings';
import type { LoadRecord } from '$core/load/record/record';
import { describeFinding } from '$core/wording/findings';
import { ARRIVAL_CASES } from '../../support/arrivalCases';
import type { Beside } from '$core/findings/inspection';
import { BODY_CASES, factsFor } from '../../support/bodyCases';
import { CONTENT_CASES } from '../../support/contentCases';
import type { FindingCase } from '../../support/findingCase';
import { file, recordWith } from '../../support/inspected';

const CASES: Record<RuleId, FindingCase> = { ...ARRIVAL_CASES, ...CONTENT_CASES, ...BODY_CASES };

const foundIn = (record: LoadRecord, rule: RuleId, beside: Beside = {}): Finding[] => {
	const { findings, faults } = findingsOf(record, [], beside);
	expect(faults).to.deep.equal([]);
	return findings.filter((finding) => finding.rule === rule);
};

describe('rules of the worklist', () => {
	for (const rule of RULE_IDS)
		it(`${rule}: on a load that has it, at its cost, and not on one that is clean of it`, () => {
			const { has, clean, beside, resource, bytes, delay, threadMs, saved } = CASES[rule];
			const [finding, ...others] = foundIn(has, rule, beside?.has);
			expect(finding, 'found').to.not.equal(undefined);
			expect(others).to.deep.equal([]);
			expect(finding!.resource.key).to.equal(resource);
			if (bytes !== undefined) expect(finding!.cost.bytes).to.equal(bytes);
			if (delay !== undefined) expect(finding!.cost.delay).to.be.closeTo(delay, 1e-9);
			if (threadMs !== undefined) expect(finding!.cost.threadMs).to.equal(threadMs);
			if (saved !== undefined) expect(finding!.saving).to.deep.equal({ bytes: saved });
			expect(foundIn(clean, rule, beside?.clean)).to.deep.equal([]);
			const told = describeFinding(finding!);
			for (const words of [told.title, told.detail, told.doneWhen, ...told.advice])
				expect(words, `${rule}: ${words}`)
					.to.match(/^\S.{8,}$/s)
					.and.not.match(/undefined|NaN|\{/);
			expect(told.advice).to.have.length.of.at.least(1);
		});

	it('speak of bytes from 5 kB, or 1 % of the page, on', () => {
		const small = file('font', '/a.ttf', { mimeType: 'font/ttf', wireBytes: 4999 });
		expect(foundIn(recordWith([small]), 'font-format')).to.deep.equal([]);
		// A page of a megabyte: 1 % are 10 kB.
		const heavy = file('image', '/large.png', { wireBytes: 1_000_000 });
		const nine = file('font', '/a.ttf', { mimeType: 'font/ttf', wireBytes: 9000 });
		expect(foundIn(recordWith([nine, heavy]), 'font-format')).to.deep.equal([]);
	});

	it('go on when one of them throws, which is told as a fault', () => {
		const broken = () => {
			throw new Error('no such thing');
		};
		const { findings, faults } = findingsOf(recordWith([]), [], { rules: [broken, () => []] });
		expect(findings).to.deep.equal([]);
		expect(faults).to.deep.equal(['broken: no such thing']);
	});

	it('tell the bytes of a picture once: too many pixels before a newer format before better packing', () => {
		const { has, beside } = BODY_CASES['picture-old-format'];
		const rules = (facts: Beside) =>
			findingsOf(has, [], facts)
				.findings.map(({ rule }) => rule)
				.filter((rule) => rule.startsWith('picture'));
		expect(rules(beside.has)).to.deep.equal(['picture-old-format']);
		// Four times the pixels of its only place: all that is saved is told there.
		const large = factsFor({
			picture: {
				format: 'jpeg',
				width: 1600,
				height: 800,
				isAnimated: false,
				needed: { width: 800, height: 400 },
				encoded: [{ format: 'webp', width: 800, height: 400, bytes: 30_000 }]
			}
		});
		const [finding, ...others] = findingsOf(has, [], large).findings.filter(({ rule }) => rule.startsWith('picture'));
		expect(others).to.deep.equal([]);
		expect(finding).to.deep.include({ rule: 'picture-too-large', saving: { bytes: 170_000 } });
	});

	it('say nothing of a picture with too many pixels that cannot be made smaller', () => {
		const { has } = CONTENT_CASES['picture-too-large'];
		const none = { format: 'jpeg' as const, width: 1600, height: 800, isAnimated: false, encoded: [] };
		const facts = factsFor({ picture: { ...none, needed: { width: 800, height: 400 } } });
		expect(foundIn(has, 'picture-too-large')).to.have.length(1);
		expect(foundIn(has, 'picture-too-large', facts)).to.deep.equal([]);
	});

	it('name a resource by its path without what changes from build to build', () => {
		const [finding] = foundIn(
			recordWith([file('script', '/app.3f2a9c1b.js?v=7', { unused: 60_000 })]),
			'script-never-run'
		);
		expect(finding!.resource).to.deep.include({
			name: 'https://own.test/app.3f2a9c1b.js?v=7',
			key: 'own.test/app.#.js'
		});
	});
});
