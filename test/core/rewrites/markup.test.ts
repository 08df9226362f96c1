import { expect } from 'chai';
import * as v from 'valibot';
import { editMarkup } from '$core/rewrites/markup';
import { Rewrite, Rewrites } from '$core/rewrites/rewrite';
import { editText, realAddress } from '$core/rewrites/text';
import { wordRewrite } from '$core/wording/rewrites';

const PAGE = `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>A  page</title>
<link rel=stylesheet href="/look.css" integrity="sha256-x">
<script src="https://chat.example/start.js" async></script></head>
<body class='x'><img id=hero src=/hero.jpg loading=lazy><p>Text &amp; more</p>
<script>var kept = "<b>";</script><iframe src="//video.example/embed"></iframe></body></html>`;
const read = (...rewrites: v.InferInput<typeof Rewrite>[]) => v.parse(Rewrites, rewrites);
const edited = (...rewrites: v.InferInput<typeof Rewrite>[]) =>
	editMarkup(PAGE, 'https://own.test/a', read(...rewrites));

describe('changes of markup', () => {
	it('leave every character alone that is not meant', () => {
		expect(edited()).to.deep.equal({ markup: PAGE, applied: [], hasScript: false });
		const { markup } = edited({ do: 'attribute', selector: '#hero', name: 'loading', value: 'eager' });
		expect(markup).to.equal(PAGE.replace('loading=lazy', 'loading="eager"'));
	});

	it('set, change and take out attributes, written safely', () => {
		const { markup } = edited(
			{ do: 'attribute', selector: '#hero', name: 'fetchpriority', value: 'high' },
			{ do: 'attribute', selector: '#hero', name: 'loading', value: null },
			{ do: 'attribute', selector: 'p', name: 'title', value: 'a "b" <c>' }
		);
		expect(markup).to.contain('<img fetchpriority="high" id=hero src=/hero.jpg >');
		expect(markup).to.contain('<p title="a &quot;b&quot; &lt;c>">Text &amp; more</p>');
	});

	it('take out what asks for a host, an owner or an address, by whatever address it is written', () => {
		expect(edited({ do: 'block', owner: 'chat.example' }).markup).to.equal(
			PAGE.replace('<script src="https://chat.example/start.js" async></script>', '')
		);
		expect(edited({ do: 'block', host: 'video.example' }).markup).to.not.contain('iframe');
		expect(edited({ do: 'block', address: 'https://own.test/hero*' }).markup).to.not.contain('img');
		expect(edited({ do: 'block', host: 'own.example' }).applied).to.deep.equal([0]);
	});

	it('hold elements in templates, with a script that puts them in again', () => {
		const { markup, hasScript, applied } = edited({ do: 'delay', owner: 'chat.example', until: 'input' });
		expect([hasScript, applied]).to.deep.equal([true, [1]]);
		expect(markup).to.contain(
			'<template data-held-until="input"><script src="https://chat.example/start.js" async></script></template>'
		);
		expect(markup).to.match(/<script>\(function \(\) \{[\s\S]+<\/script><\/body><\/html>$/);
		expect(edited({ do: 'delay', owner: 'chat.example', ms: 500 }).markup).to.equal(PAGE);
	});

	it('drop a policy of the markup and the sum of a file that is changed, since they would undo it', () => {
		const page = PAGE.replace(
			'<meta charset="utf-8">',
			'<meta http-equiv="Content-Security-Policy" content="script-src x">'
		);
		const held = editMarkup(page, 'https://own.test/a', read({ do: 'delay', owner: 'chat.example', until: 'settled' }));
		expect(held.markup).to.not.contain('Security-Policy');
		const replaced = edited({ do: 'replace', address: 'https://own.test/look.css', with: 'style' });
		expect(replaced.markup).to.contain('<link rel=stylesheet href="/look.css" >');
	});

	it('put links into the head and markup where it is wanted, in the order of the list', () => {
		const { markup } = edited(
			{ do: 'preload', address: '/hero.jpg', as: 'image', priority: 'high' },
			{ do: 'preconnect', host: 'fonts.example' },
			{ do: 'insert', selector: 'body', where: 'first', markup: '<i>1</i>' },
			{ do: 'insert', selector: 'p', where: 'after', markup: '<i>2</i>' }
		);
		expect(markup).to.contain(
			'<head><link rel="preload" as="image" href="/hero.jpg" fetchpriority="high"><link rel="preconnect" href="https://fonts.example"><meta'
		);
		expect(markup).to.contain("<body class='x'><i>1</i><img").and.contain('</p><i>2</i>');
	});

	it('keep room for an element, by its dimensions or its style', () => {
		const { markup } = edited(
			{ do: 'room', selector: '#hero', width: 400, height: 300 },
			{ do: 'room', selector: 'p', width: 400, height: 90 }
		);
		expect(markup).to.match(/<img (width="400" height="300"|height="300" width="400") id=hero/);
		expect(markup).to.contain('<p style="min-height:90px;max-width:100%;">');
	});

	it('let the first of two stand that touch the same characters', () => {
		const { markup, applied } = edited(
			{ do: 'remove', selector: '#hero' },
			{ do: 'attribute', selector: '#hero', name: 'loading', value: 'eager' }
		);
		expect(applied).to.deep.equal([1, 0]);
		expect(markup).to.not.contain('hero');
	});

	it('work on markup without head, body or doctype', () => {
		const { markup } = editMarkup('<p>x', 'https://own.test/', read({ do: 'preconnect', host: 'a.example' }));
		expect(markup).to.equal('<link rel="preconnect" href="https://a.example"><p>x');
	});
});

describe('changes of text', () => {
	it('replace what is found, as text or by a pattern, in the files that are meant', () => {
		const [plain] = read({ do: 'text', address: '*/a.css', find: 'a.b', replacement: '$&' });
		expect(editText('a.b axb', 'https://x.test/a.css', [plain!])).to.deep.equal({ text: '$& axb', applied: [1] });
		const [pattern] = read({
			...{ do: 'text', address: '*/a.css', find: 'font-display:\\s*(block|auto)', isPattern: true },
			replacement: 'font-display: swap'
		});
		expect(editText('font-display:block;', 'https://x.test/a.css', [pattern!]).text).to.equal('font-display: swap;');
		expect(editText('font-display:block;', 'https://x.test/b.css', [pattern!]).applied).to.deep.equal([0]);
	});

	it('serve a host from the page’s own, however it is written', () => {
		const rewrites = read({ do: 'own-host', host: 'cdn.example' });
		const { text, applied } = editText(
			'url(https://cdn.example/a.woff2) src="//cdn.example/b.js" "https:\\/\\/cdn.example\\/c" //other.example/',
			'https://own.test/',
			rewrites
		);
		expect(text).to.equal(
			'url(/.zafra-from/cdn.example/a.woff2) src="/.zafra-from/cdn.example/b.js" "\\/.zafra-from\\/cdn.example\\/c" //other.example/'
		);
		expect(applied).to.deep.equal([3]);
		expect(realAddress('https://own.test/.zafra-from/cdn.example/a/b.js?x=1')).to.equal(
			'https://cdn.example/a/b.js?x=1'
		);
		expect(realAddress('https://own.test/a')).to.equal(null);
	});
});

describe('rewrites as data', () => {
	const problem = (value: unknown) => v.safeParse(Rewrites, value).issues?.[0].message;
	it('say what is wrong with them', () => {
		expect(problem([{ do: 'block' }])).to.match(/Name one: an owner, a host or an address/);
		expect(problem([{ do: 'delay', host: 'a.example' }])).to.match(/Say “ms” or “until”/);
		expect(problem([{ do: 'text', address: 'a', find: '(', isPattern: true, replacement: '' }])).to.match(/regular/);
		expect(problem([{ do: 'remove', selector: 'div[' }])).to.not.equal(undefined);
		expect(problem([{ do: 'explode' }])).to.match(/There is no such rewrite/);
		const twice = { do: 'replace', address: 'a', with: 'picture' };
		expect(problem([twice, twice])).to.match(/a is replaced twice: one of them would undo the other/);
	});

	it('have words', () => {
		const [chat, picture] = read(
			{ do: 'delay', owner: 'chat.example', until: 'input' },
			{ do: 'replace', address: 'https://own.test/img/hero.jpg', with: 'picture', width: 863, height: 378 }
		);
		expect(wordRewrite(chat!)).to.equal('chat.example only at the first input');
		expect(wordRewrite(picture!)).to.equal('hero.jpg at 863 × 378');
	});
});
