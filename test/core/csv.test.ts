import { expect } from 'chai';
import Papa from 'papaparse';
import { csvOf, disarmed } from '$core/formats/csv';

/** What a sheet would run, or read as the beginning of something that it runs. */
const ARMED = [
	'=1+1',
	"=cmd|' /C calc'!A0",
	'+1+cmd',
	'-1+cmd',
	'@SUM(A1)',
	'=a\nb',
	'=HYPERLINK("http://evil.test")\r\nmore',
	'\t=1',
	'\r=1',
	'\n=1',
	'\n\n=1',
	' =1',
	'   +cmd',
	'\u00a0=1',
	'\u3000=1',
	'\u200b=1',
	'\u2060@x',
	'\ufeff=1',
	'\u202e=1',
	'\u0000=1',
	'\u0001-cmd',
	'\u001b=1',
	'\uff1d1+1',
	'\uff0b1+cmd',
	'\uff0d1+cmd',
	'\uff20SUM(A1)',
	' \uff1dcmd',
	'\n\uff1dcmd',
	'\ufe66cmd',
	'\ufe62cmd',
	'\ufe63cmd',
	'\ufe6bcmd',
	'\u2028=1',
	'\v=1',
	'\f=1',
	'\t',
	'\rtext',
	'\ntext',
	'=',
	'@',
	'--1',
	'+-1',
	'-1,2,3',
	'=\u0000'
];
const PLAIN = [
	'',
	'a=b',
	'1',
	'-5',
	'-5.25',
	'+3',
	'1e-7',
	'-1,5',
	'x-y',
	'https://a.test/?a=b',
	'−0.61 s',
	'a\n=b',
	"'=1"
];

describe('tables for sheets', () => {
	it('hand over no cell that a sheet would run, whatever stands before its sign', () => {
		expect(ARMED.length).to.be.at.least(40);
		for (const cell of ARMED) expect(disarmed(cell), JSON.stringify(cell)).to.equal(`'${cell}`);
		for (const cell of PLAIN) expect(disarmed(cell), JSON.stringify(cell)).to.equal(cell);
	});

	it('do so in each cell and in the heading, and keep the text', () => {
		const { data } = Papa.parse<string[]>(
			csvOf(['=head', 'b'], [...ARMED.map((cell) => [cell, 'x']), [-5, true]]).trimEnd()
		);
		expect(data[0]).to.deep.equal(["'=head", 'b']);
		expect(data.slice(1, -1).map(([first]) => first)).to.deep.equal(ARMED.map((cell) => `'${cell}`));
		expect(data.at(-1)).to.deep.equal(['-5', 'true']);
	});
});
