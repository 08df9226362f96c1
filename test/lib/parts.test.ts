import { expect } from 'chai';
import { createRawSnippet } from 'svelte';
import Action from '$lib/parts/Action.svelte';
import BandBar from '$lib/parts/BandBar.svelte';
import Choice from '$lib/parts/Choice.svelte';
import Confirm from '$lib/parts/Confirm.svelte';
import Field from '$lib/parts/Field.svelte';
import FileField from '$lib/parts/FileField.svelte';
import FilterBar from '$lib/parts/FilterBar.svelte';
import LabLine from '$lib/parts/LabLine.svelte';
import MarkerForm from '$lib/parts/MarkerForm.svelte';
import Notice from '$lib/parts/Notice.svelte';
import Pager from '$lib/parts/Pager.svelte';
import ProgressLine from '$lib/parts/ProgressLine.svelte';
import Rail from '$lib/parts/Rail.svelte';
import Strips from '$lib/parts/Strips.svelte';
import Table from '$lib/parts/Table.svelte';
import VerdictMark from '$lib/parts/VerdictMark.svelte';
import { resultOf } from '../support/results';
import { show as render, type Shown } from '../support/svelte/show';
import { formOf } from '../../src/lib/server/http/form';
import { MarkerFields } from '../../src/lib/server/rooms/field/markerForm';

const show = (component: unknown, props: object = {}): Promise<Shown> => render(component as never, props as never);
const words = (text: string) => createRawSnippet(() => ({ render: () => `<p>${text}</p>` }));

/** The field that a label names. */
function labelled(shown: Shown, label: string): Shown {
	const found = shown.all('label').find(({ text }) => text === label);
	if (!found) throw new Error(`There is no label “${label}”: ${shown.texts('label').join(', ')}`);
	return shown.the(`[id=${found.attribute('for')}]`);
}

describe('a table', () => {
	const rows = [
		{ name: 'b', size: 2 },
		{ name: 'a', size: 10 }
	];
	const columns = [
		{
			key: 'name',
			name: 'Name',
			isRowHead: true,
			text: (row: (typeof rows)[0]) => row.name,
			sort: (row: (typeof rows)[0]) => row.name
		},
		{
			key: 'size',
			name: 'Size',
			number: true,
			text: (row: (typeof rows)[0]) => `${row.size} kB`,
			sort: (row: (typeof rows)[0]) => row.size
		},
		{ key: 'go', name: 'Open it', isUnnamed: true }
	];
	const table = (extra: object = {}) =>
		show(Table, { label: 'Files', columns, rows, key: (row: { name: string }) => row.name, ...extra });

	it('has a name, heads that sort, row heads, and columns of numbers', async () => {
		const shown = await table();
		expect(shown.the('table').attribute('aria-label')).to.equal('Files');
		expect(shown.the('.scroller').attribute('tabindex')).to.equal('0');
		expect(shown.rows()).to.deep.equal([
			['Name', 'Size', 'Open it'],
			['b', '2 kB', ''],
			['a', '10 kB', '']
		]);
		expect(shown.texts('th[scope=row]')).to.deep.equal(['b', 'a']);
		expect(shown.all('td.number')).to.have.length(2);
		expect(shown.all('thead').flatMap((head) => head.texts('button'))).to.deep.equal(['Name', 'Size']);
		// A column of buttons is named for who cannot see that they stand in one.
		expect(shown.the('.visually-hidden').text).to.equal('Open it');
	});

	it('comes in pages where it is long, and in one where it is not', async () => {
		expect((await table({ pageSize: 2 })).has('.bx--pagination')).to.equal(false);
		const paged = await table({ pageSize: 1 });
		expect(paged.all('tbody').flatMap((body) => body.all('tr'))).to.have.length(1);
		expect(paged.the('.bx--pagination').text).to.include('1–1 of 2 items').and.include('of 2 pages');
	});

	it('marks rows by their class', async () => {
		const shown = await table({ rowClass: ({ size }: { size: number }) => (size > 5 ? 'large' : '') });
		expect(shown.all('tr.large').map(({ text }) => text)).to.deep.equal(['a 10 kB']);
		expect(shown.all('tbody')[0]!.all('tr')[0]!.attribute('class')).not.to.include('large');
	});
});

describe('a field', () => {
	it('is a line or some lines, with its help, or with what is wrong in its place', async () => {
		const line = await show(Field, {
			label: 'Webhook',
			name: 'hook',
			value: 'https://a.test',
			type: 'url',
			help: 'Signed'
		});
		expect(labelled(line, 'Webhook').attribute('value')).to.equal('https://a.test');
		expect(labelled(line, 'Webhook').attribute('type')).to.equal('url');
		expect(line.text).to.include('Signed');
		const wrong = await show(Field, {
			label: 'Webhook',
			name: 'hook',
			wrong: 'This is no web address.',
			help: 'Signed'
		});
		expect(wrong.text).to.include('This is no web address.');
		expect(
			labelled(wrong, 'Webhook').attribute('aria-invalid') ?? labelled(wrong, 'Webhook').attribute('data-invalid')
		).to.equal('true');
		const lines = await show(Field, { label: 'Words', name: 'words', rows: 4, value: 'One\nTwo' });
		expect(labelled(lines, 'Words').name).to.equal('textarea');
		expect(labelled(lines, 'Words').rawText).to.equal('One\nTwo');
		expect(labelled(lines, 'Words').attribute('rows')).to.equal('4');
	});

	it('may be a choice among some, of which one is chosen', async () => {
		const options = [
			{ value: 'week', text: 'Each week' },
			{ value: 'day', text: 'Each day' }
		];
		const shown = await show(Choice, { label: 'When', name: 'every', options, value: 'day' });
		expect(labelled(shown, 'When').name).to.equal('select');
		expect(shown.texts('option')).to.deep.equal(['Each week', 'Each day']);
		expect(shown.all('option[selected]').map((option) => option.attribute('value'))).to.deep.equal(['day']);
		const wrong = await show(Choice, { label: 'When', options, value: 'day', invalidText: 'Choose one.' });
		expect(wrong.text).to.include('Choose one.');
	});

	it('may be a file, with what kinds it takes', async () => {
		const shown = await show(FileField, { label: 'Logo', name: 'logo', accept: ['.png', '.svg'], help: 'Up to 2 MB.' });
		const file = shown.the('input[type=file]');
		expect([file.attribute('name'), file.attribute('accept')]).to.deep.equal(['logo', '.png,.svg']);
		expect(shown.text).to.include('Up to 2 MB.');
		const wrong = await show(FileField, { label: 'Logo', name: 'logo', help: 'Up to 2 MB.', wrong: 'Too large.' });
		expect(wrong.the('[role=alert]').text).to.equal('Too large.');
		expect(wrong.text).not.to.include('Up to 2 MB.');
	});

	it('of a release comes back with what was typed', async () => {
		const first = await show(MarkerForm, { form: await formOf(MarkerFields, { path: '/booking' }) });
		expect(labelled(first, 'Pages whose path begins with').attribute('value')).to.equal('/booking');
		const form = await formOf(MarkerFields, { day: 'soon', words: 'A chat', path: '' });
		const refused = { ...form, valid: false, posted: true, errors: { day: ['Write a day.'] } };
		const again = await show(MarkerForm, { form: refused, submit: 'Note it' });
		expect(labelled(again, 'Live since').attribute('value')).to.equal('soon');
		expect(labelled(again, 'What was released').attribute('value')).to.equal('A chat');
		expect(labelled(again, 'Pages whose path begins with').attribute('value')).to.equal('');
		expect(again.text).to.include('Write a day.');
		expect(again.texts('button').at(-1)).to.equal('Note it');
	});
});

describe('what can be pressed', () => {
	it('is a form of one button, with what it sends and what it is about', async () => {
		const shown = await show(Action, {
			action: '?/stop',
			text: 'Stop',
			about: 'the watch',
			values: { id: 7 },
			shortcut: 'r',
			pressed: true
		});
		const form = shown.the('form');
		expect([form.attribute('method'), form.attribute('action')]).to.deep.equal(['POST', '?/stop']);
		expect(shown.the('input[name=id]').attribute('value')).to.equal('7');
		const button = shown.the('button');
		expect(button.text).to.equal('Stop the watch');
		expect([button.attribute('type'), button.attribute('data-key'), button.attribute('aria-pressed')]).to.deep.equal([
			'submit',
			'r',
			'true'
		]);
	});

	it('asks first where something is lost', async () => {
		const props = {
			// An open one is drawn by a browser alone.
			open: false,
			heading: 'Delete this watch?',
			action: 'Delete',
			children: words('Its 50 readings go with it.'),
			onconfirm: () => undefined
		};
		const shown = await show(Confirm, props);
		expect(shown.text).to.include('Delete this watch?').and.include('Its 50 readings go with it.');
		expect(shown.texts('button').filter(Boolean)).to.include.members(['Cancel', 'Delete']);
		expect(shown.the('.bx--btn--danger').text).to.equal('Delete');
	});
});

describe('what a reader is told', () => {
	it('is a message that says how urgent it is', async () => {
		const calm = await show(Notice, { title: 'Saved.', kind: 'success' });
		expect(calm.the('[role=status]').text).to.equal('Saved.');
		const bad = await show(Notice, { title: 'Not done.', text: 'The lab is off.', kind: 'error' });
		expect(bad.the('[role=alert]').text).to.match(/Not done\.\s*The lab is off\./);
	});

	it('is how far something is', async () => {
		const shown = await show(ProgressLine, { done: 3, total: 12, note: '4 min left' });
		expect(shown.text).to.include('3 of 12 loads, 4 min left');
		const bar = shown.the('[role=progressbar]');
		expect([bar.attribute('aria-valuenow'), bar.attribute('aria-valuemax')]).to.deep.equal(['3', '12']);
		// Before its plan is known nothing is divided by zero.
		expect(
			(await show(ProgressLine, { done: 0, total: 0 })).the('[role=progressbar]').attribute('aria-valuemax')
		).to.equal('1');
	});

	it('is a band with its word, and one cell of three filled', async () => {
		const shown = await show(BandBar, { band: 'needs improvement' });
		expect(shown.text).to.equal('needs improvement');
		expect(shown.all('i').map((cell) => cell.attribute('class')!.includes('on'))).to.deep.equal([false, true, false]);
	});

	it('is a verdict by its word, never by its colour alone', async () => {
		for (const [verdict, word] of [
			['better', 'faster'],
			['worse', 'slower'],
			['same', 'no practical difference'],
			['undecided', 'undecided']
		] as const)
			expect(
				(await show(VerdictMark, { result: resultOf('lcp', verdict, [verdict === 'better' ? -300 : 300, 100, 500]) }))
					.text
			).to.include(word);
	});

	it('is what the lab does, and when nobody answers', async () => {
		const lab = { state: 'idle', doing: '', trialId: null, timeLeftMs: null, problem: '', isGathering: false };
		const line = async (extra: object, isUnreachable = false) =>
			(await show(LabLine, { lab: { ...lab, ...extra }, isUnreachable })).text;
		expect(await line({})).to.equal('The lab is free');
		expect(await line({ state: 'off' })).to.include('The lab is off');
		expect(await line({ problem: 'Chromium is not there.' })).to.include('cannot load pages. Chromium is not there.');
		expect(await line({ state: 'busy', trialId: 3, doing: 'A, round 2 of 8', timeLeftMs: 120_000 })).to.match(
			/^Loading: A, round 2 of 8; .*2 min.* left$/
		);
		expect(await line({ state: 'busy', isGathering: true })).to.equal('Gathering pages or field data');
		expect(await line({}, true)).to.include('Zafra does not answer');
	});

	it('is an answer in a row of a list, a line a variant and conditions', async () => {
		const mark = { metric: 'lcp', verdict: 'better', inMargins: null, isExact: false, short: 'LCP', word: 'faster' };
		const strip = (arm: string, conditionName: string) => ({
			arm,
			condition: conditionName,
			conditionName,
			tone: 'good',
			sentence: `${arm} is faster.`,
			marks: [mark]
		});
		const item = await show(Strips, { answer: { strips: [strip('B', 'Phone'), strip('B', 'Desktop')], more: 0 } });
		expect(item.texts('.of')).to.deep.equal(['Phone', 'Desktop']);
		expect(item.texts('.judgement')).to.deep.equal(['B is faster.', 'B is faster.']);
		const many = await show(Strips, {
			answer: { strips: [strip('B', 'Phone'), strip('C', 'Phone')], more: 4 },
			spoken: false
		});
		expect(many.texts('.of')).to.deep.equal(['B, Phone', 'C, Phone']);
		expect(many.text).to.include('and 4 more');
		expect(many.has('.judgement')).to.equal(false);
	});
});

describe('the frame of all pages', () => {
	it('has the sections in the order of the work, and says where one is and whose work it is', async () => {
		const clients = [{ id: 4, name: 'Skerry Line' }];
		const shown = await show(Rail, {
			clients,
			clientId: 4,
			path: '/watch/1',
			isNarrow: false,
			onfold: () => undefined
		});
		expect(
			shown
				.all('nav')
				.flatMap((nav) => nav.all('li'))
				.map(({ text }) => text.replace(/^\w(?=[A-Z])/, ''))
		).to.deep.equal([
			'Desk',
			'Clients',
			'Pages',
			'Field',
			'Audits',
			'Worklist',
			'Trials',
			'Watch',
			'Standings',
			'Loads',
			'Reports',
			'Workshop'
		]);
		const here = shown.all('a').filter((link) => link.attribute('aria-current') === 'page');
		expect(here.map((link) => link.attribute('href'))).to.deep.equal(['/watch']);
		expect(
			labelled(shown, 'Client')
				.all('option[selected]')
				.map(({ text }) => text)
		).to.deep.equal(['Skerry Line']);
		expect(shown.the('input[name=back]').attribute('value')).to.equal('/watch/1');
	});

	it('filters lists by words, and pages through them', async () => {
		const bar = await show(FilterBar, { placeholder: 'Question or address', words: 'chat', onsearch: () => undefined });
		const field = bar.the('input');
		expect([field.attribute('placeholder'), field.attribute('value')]).to.deep.equal(['Question or address', 'chat']);
		const pager = await show(Pager, { total: 60, pageSize: 25, page: 2 });
		expect(pager.text).to.include('26–50 of 60 items').and.include('of 3 pages');
		expect((await show(Pager, { total: 1, pageSize: 25, page: 1 })).text).to.include('of 1 item');
	});
});
