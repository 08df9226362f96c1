/**
 * truth.test: pages whose metrics follow from their construction. Beside each page lies `<page>.json` with what must be
 * measured and how exactly; the construction is in the words.
 */
import { stylesheet } from '../make/code';
import type { PictureMaker } from '../make/pictures';
import type { Answer, HostAnswer } from '../world';

export interface Truth {
	/** How the value follows from the construction. */
	words: string;
	/** Expected values by metric or fact; times in ms beyond the network's own share. */
	expected: Record<string, { value: number; tolerance: number } | string>;
}

const SERVER_MS = 100;
const IMAGE_MS = 600;
const UNUSED_CSS = stylesheet('unused', 20_000);
const USED_CSS = 'body{margin:0;font:16px Arial}p{color:#123}';
const CALLED = 'function called(n){var sum=0;for(var i=0;i<n;i++)sum+=i;return sum}';
const NEVER = `function never(){${'var words="this function is never called";'.repeat(300)}}`;

const page = (title: string, head: string, body: string): Answer => ({
	type: 'text/html',
	body: `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${title}</title><link rel="icon" href="data:,">${head}</head><body style="margin:0">${body}</body></html>`,
	waitMs: SERVER_MS
});
const busy = (ms: number) => `(function(){var end=performance.now()+${ms};while(performance.now()<end);})()`;

/** DOM: html > body > 20 nested div > 30 paragraphs; with head, meta x 2, title and link. */
const NEST = 20;
const PARAGRAPHS = 30;

interface TruthPage extends Truth {
	answer(): Answer;
}

export const TRUTHS: Record<string, TruthPage> = {
	'/lcp': {
		words: `The page comes after ${SERVER_MS} ms of server time; its only large thing is an image that the server holds for ${IMAGE_MS} ms. LCP is that image, not before both times and the round trips are over.`,
		expected: { lcpElement: '#large', lcpUrl: '/large.jpg', lcpAtLeast: { value: SERVER_MS + IMAGE_MS, tolerance: 0 } },
		answer: () => page('LCP', '', '<p>Small.</p><img id="large" src="/large.jpg" width="800" height="500" alt="">')
	},
	'/cls': {
		words:
			'At 700 ms a box of 20 % of the viewport height comes in above a block that fills the lower part of the viewport; at 1,750 ms another of 10 %. They are two session windows, more than a second apart. What moved covers the whole viewport, so each shift is its distance by the larger side of the viewport: 0.2 and 0.1 of the height. CLS is the larger window: 0.2 times height by larger side.',
		expected: { windows: { value: 2, tolerance: 0 }, clsByHeight: { value: 0.2, tolerance: 0.003 } },
		answer: () =>
			page(
				'CLS',
				'<style>#block{height:100vh;background:#346}</style>',
				`<div id="block"></div><script>function add(share){var box=document.createElement('div');box.style.height=share*innerHeight+'px';document.body.prepend(box)}
setTimeout(function(){add(.2)},700);setTimeout(function(){add(.1)},1750)</script>`
			)
	},
	'/tasks': {
		words: 'After the first paint three tasks of 120, 80 and 40 ms: 70 + 30 + 0 ms of blocking at full CPU speed.',
		expected: { tbt: { value: 100, tolerance: 25 }, longTasks: { value: 2, tolerance: 0 } },
		answer: () =>
			page(
				'Tasks',
				'',
				`<h1>Text first</h1><script>addEventListener('load',function(){setTimeout(function(){${busy(120)}},600);setTimeout(function(){${busy(80)}},1000);setTimeout(function(){${busy(40)}},1400)})</script>`
			)
	},
	'/interaction': {
		words: 'A click on the button runs for 150 ms before it paints: INP of that click is 150 ms and a frame or two.',
		expected: { inp: { value: 160, tolerance: 32 } },
		answer: () =>
			page(
				'Interaction',
				'',
				`<button id="press" onclick="${busy(150).replace(/"/g, '&quot;')};this.textContent='Pressed'">Press</button>`
			)
	},
	'/unused': {
		words:
			'A style sheet of known bytes matches nothing; a script holds one function that runs and one that never does.',
		expected: {
			unusedCss: { value: UNUSED_CSS.length, tolerance: 400 },
			unusedJs: { value: NEVER.length, tolerance: 60 }
		},
		answer: () =>
			page(
				'Unused',
				'<link rel="stylesheet" href="/unused.css"><link rel="stylesheet" href="/used.css">',
				'<p>Text.</p><script src="/half.js"></script>'
			)
	},
	'/dom': {
		words: `html and body, ${NEST} nested divs and ${PARAGRAPHS} paragraphs in the innermost; the head holds two metas, a title and a link.`,
		expected: {
			elements: { value: 2 + NEST + PARAGRAPHS + 5, tolerance: 0 },
			depth: { value: 2 + NEST + 1, tolerance: 0 }
		},
		answer: () => page('DOM', '', `${'<div>'.repeat(NEST)}${'<p>One.</p>'.repeat(PARAGRAPHS)}${'</div>'.repeat(NEST)}`)
	},
	'/visits': {
		words:
			'A style sheet of 20 kB may be kept for a year, one of few bytes may not: a repeat visit transfers the page and the small one only.',
		expected: { keptBytes: { value: UNUSED_CSS.length, tolerance: 0 } },
		answer: () =>
			page(
				'Visits',
				'<link rel="stylesheet" href="/kept.css"><link rel="stylesheet" href="/used.css">',
				'<p>Come again.</p>'
			)
	},
	'/mark': {
		words:
			'The page sets the User Timing mark “menu-ready” 500 ms after its load event and measures “menu” from the start to it.',
		expected: { mark: 'menu-ready', afterLoad: { value: 500, tolerance: 30 } },
		answer: () =>
			page(
				'Mark',
				'',
				"<p>Wait.</p><script>addEventListener('load',function(){setTimeout(function(){performance.mark('menu-ready');performance.measure('menu',undefined,'menu-ready')},500)})</script>"
			)
	}
};

export async function answerTruth(path: string, pictures: PictureMaker): Promise<HostAnswer> {
	const truth = TRUTHS[path];
	if (truth) return truth.answer();
	const beside = path.endsWith('.json') ? TRUTHS[path.slice(0, -5)] : undefined;
	if (beside)
		return { type: 'application/json', body: JSON.stringify({ words: beside.words, expected: beside.expected }) };
	const css = (body: string, cache: string): Answer => ({
		type: 'text/css',
		body,
		compress: false,
		headers: { 'cache-control': cache }
	});
	switch (path) {
		case '/':
			return page(
				'Known truth',
				'',
				`<ul>${Object.entries(TRUTHS)
					.map(
						([href, { words }]) =>
							`<li><a href="${href}">${href}</a> (<a href="${href}.json">expected</a>): ${words}</li>`
					)
					.join('')}</ul>`
			);
		case '/large.jpg':
			return {
				type: 'image/jpeg',
				body: await pictures.get('truth-large', {
					width: 800,
					height: 500,
					palette: ['#ccd', '#88a', '#336'],
					scene: 'sea',
					format: 'jpeg',
					quality: 75
				}),
				waitMs: IMAGE_MS
			};
		case '/unused.css':
			return css(UNUSED_CSS, 'no-store');
		case '/kept.css':
			return css(UNUSED_CSS, 'public, max-age=31536000');
		case '/used.css':
			return css(USED_CSS, 'no-store');
		case '/half.js':
			return { type: 'text/javascript', body: `${CALLED}\n${NEVER}\ncalled(10);`, compress: false };
	}
	return null;
}
