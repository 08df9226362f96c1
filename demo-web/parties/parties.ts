/** Third parties on hosts of their own, and the tags by which pages ask for them. */
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { library } from '../make/code';
import type { PictureMaker } from '../make/pictures';
import type { Answer, Ask, HostAnswer } from '../world';
import type { SiteState } from '../state/switches';
import { TITLE_FONT } from '../builders/builders';

const SLOW_MS = 3000;
const OPEN = { 'access-control-allow-origin': '*', 'cache-control': 'public, max-age=600', 'timing-allow-origin': '*' };
/** Nobody listens there: a connection to it is refused. */
const DEAD_PORT = ':9';

type Party = 'chat' | 'ads' | 'counting' | 'fonts' | 'shareCounts';
export const PARTY_HOSTS: Record<Party, string> = {
	chat: 'parlour-bell.test',
	ads: 'hoarding-row.test',
	counting: 'stilewatch.test',
	fonts: 'serifhouse.test',
	shareCounts: 'passalong.test'
};

/** Where a page finds a party's file, the mode in the query so that the party behaves as switched. */
function address(party: Party, path: string, state: SiteState): string | null {
	const mode = state[party];
	if (mode === 'absent') return null;
	const scheme = state.https ? 'https' : 'http';
	return `${scheme}://${PARTY_HOSTS[party]}${mode === 'refused' ? DEAD_PORT : ''}${path}?mode=${mode}`;
}

export interface PartyTags {
	head: string;
	middle: string;
	end: string;
}

export function partyTags(state: SiteState): PartyTags {
	const script = (party: Party, path: string) => {
		const src = address(party, path, state);
		return src ? `<script src="${src}" async></script>` : '';
	};
	const fonts = address('fonts', '/fonts.css', state);
	const chat = state.chat === 'later' ? laterScript(address('chat', '/bell.js', state)!) : script('chat', '/bell.js');
	return {
		head:
			(fonts ? `<link rel="stylesheet" href="${fonts}">` : '') +
			(state.consent ? '' : script('counting', '/count.js')) +
			chat,
		middle:
			state.ads === 'absent'
				? ''
				: state.ads === 'half-filled'
					? '<div class="ad-pair"><div class="ad-slot reserved"></div><div class="ad-slot reserved"></div></div>'
					: '<div class="ad-slot"></div>',
		end: script('ads', '/row.js') + script('shareCounts', '/counts.js')
	};
}

/** Where the counting's script is found; null without it. */
export const countingScript = (state: SiteState): string | null => address('counting', '/count.js', state);

const LATER_MS = 6500;

/** A script that a timer asks for, long after a test of the page would have ended. */
function laterScript(src: string): string {
	return `<script>addEventListener('load',function(){setTimeout(function(){var script=document.createElement('script');script.async=true;script.src=${JSON.stringify(src)};document.head.appendChild(script)},${LATER_MS})})</script>`;
}

const CHAT_PARTS = 27;
const CHAT = (base: string, mode: string) => `(function(){
var base=${JSON.stringify(base)},mode=${JSON.stringify(mode)};
var words='hello welcome aboard how may we help you today please wait a moment'.split(' ');
function work(rounds){var made=[];for(var i=0;i<rounds;i++){var line=[];for(var j=0;j<24;j++)line.push(words[(i*7+j*3)%words.length]+((i*j)%97));line.sort();made.push(line.join('-'))}made.sort();return made.length}
window.ParlourBell={messages:work(2600)};
setTimeout(function(){window.ParlourBell.index=work(3200);
fetch(base+'/greeting.json?mode='+mode).then(function(r){return r.json()}).then(function(greeting){
window.ParlourBell.phrases=work(2600);
for(var i=0;i<${CHAT_PARTS};i++){var part=document.createElement('script');part.async=true;part.src=base+'/part-'+i+'.js?mode='+mode;document.head.appendChild(part)}
if(innerWidth<800){var bar=document.createElement('div');bar.className='parlour-bell-bar';bar.style.cssText='background:#f3d9a4;color:#3a2a08;padding:14px 24px;font:16px Arial';
bar.textContent=greeting.text;document.body.insertBefore(bar,document.body.firstChild)}
var box=document.createElement('div');box.className='parlour-bell-box';box.style.cssText='position:fixed;right:18px;bottom:18px;width:260px;background:#fff;color:#222;border:2px solid #7a3b12;padding:14px;font:15px/1.4 Arial;box-shadow:0 4px 18px rgba(0,0,0,.25)';
box.innerHTML='<b>Parlour Bell</b><p>'+greeting.question+'</p>';var face=new Image();face.alt='';face.src=base+'/face.jpg?mode='+mode;face.width=56;face.height=56;box.prepend(face);document.body.appendChild(box);
})},60);
})();`;

const ADS = (base: string, mode: string) => `(function(){
var base=${JSON.stringify(base)},mode=${JSON.stringify(mode)};
window.HoardingRow={bids:[]};
for(var i=0;i<4;i++)fetch(base+'/bid.json?bidder='+i+'&mode='+mode).then(function(r){return r.json()}).then(function(bid){window.HoardingRow.bids.push(bid);
if(window.HoardingRow.bids.length<4)return;
var slot=document.querySelector('.ad-slot');if(!slot)return;var picture=new Image();picture.alt='Advertisement';picture.src=base+'/board.jpg?mode='+mode;picture.style.width='100%';
picture.onload=function(){slot.appendChild(picture);if(mode!=='half-filled')slot.style.minHeight='230px'}});
})();`;

const COUNTING = (base: string, mode: string) => `(function(){
var tell=function(){navigator.sendBeacon(${JSON.stringify(base)}+'/hit?mode=${mode}',JSON.stringify({path:location.pathname,width:innerWidth}))};
if(document.readyState==='complete')tell();else addEventListener('load',tell)})();`;

const COUNTS = (base: string, mode: string) =>
	`fetch(${JSON.stringify(base)}+'/counts.json?mode=${mode}').then(function(r){return r.json()}).then(function(counts){document.querySelectorAll('.share-button').forEach(function(button,i){button.textContent+=' '+counts[i%counts.length]})});`;

/** @param jitter seeded time around a middle */
export async function answerParty(
	ask: Ask,
	pictures: PictureMaker,
	jitter: (middleMs: number) => number
): Promise<HostAnswer> {
	const mode = ask.query.get('mode') ?? 'normal';
	if (mode === 'silent') return () => undefined;
	const base = `${ask.https ? 'https' : 'http'}://${ask.host}`;
	const answer = await fileOf(ask, base, mode, pictures);
	if (!answer) return null;
	return {
		...answer,
		headers: { ...OPEN, ...answer.headers },
		waitMs: jitter(answer.waitMs ?? 40) + (mode === 'slow' ? SLOW_MS : 0)
	};
}

/** A month of visits by page, as the counting service hands it out to a site's owner. */
function exportOf(site: string): Answer | null {
	const file = join(EXPORTS, `${site}.csv`);
	if (!/^[a-z-]+\.test$/.test(site) || !existsSync(file)) return null;
	return { type: 'text/csv', body: readFileSync(file), waitMs: 60 };
}

const EXPORTS = fileURLToPath(new URL('../../demo/traffic', import.meta.url));

const js = (body: string, waitMs = 40): Answer => ({ type: 'text/javascript', body, waitMs });
const json = (value: unknown, waitMs = 60): Answer => ({
	type: 'application/json',
	body: JSON.stringify(value),
	waitMs
});

async function fileOf(
	{ host, path, query, method }: Ask,
	base: string,
	mode: string,
	pictures: PictureMaker
): Promise<Answer | null> {
	const image = async (
		name: string,
		width: number,
		height: number,
		palette: readonly [string, string, string]
	): Promise<Answer> => ({
		type: 'image/jpeg',
		body: await pictures.get(name, { width, height, palette, scene: 'object', format: 'jpeg', quality: 80 }),
		waitMs: 15
	});
	switch (`${host}${path}`) {
		case 'parlour-bell.test/bell.js':
			return js(`${CHAT(base, mode)}\n${library('bellPhrases', 24_000, 0)}`);
		case 'parlour-bell.test/greeting.json':
			return json({ text: 'Our desk is open until nine tonight.', question: 'What are you looking for?' }, 70);
		case 'parlour-bell.test/face.jpg':
			return image('bell-face', 112, 112, ['#e2c9a1', '#b07a4a', '#7a3b12']);
		case 'hoarding-row.test/row.js':
			return js(`${ADS(base, mode)}\n${library('hoardingRow', 34_000, 300)}`, 60);
		case 'hoarding-row.test/bid.json':
			return json({ bidder: Number(query.get('bidder')), price: 0.04 }, 180 + 120 * Number(query.get('bidder') ?? 0));
		case 'hoarding-row.test/board.jpg':
			return image('hoarding-board', 970, 250, ['#f4d35e', '#ee964b', '#0d3b66']);
		case 'stilewatch.test/count.js':
			return js(`${COUNTING(base, mode)}\n${library('stilewatch', 9000, 20)}`);
		case 'stilewatch.test/export':
			return exportOf(query.get('site') ?? '');
		case 'stilewatch.test/hit':
			return { status: method === 'POST' ? 204 : 405, type: 'text/plain', body: '', waitMs: 20 };
		case 'serifhouse.test/fonts.css':
			return {
				type: 'text/css',
				body: `@font-face{font-family:"Harbour";src:url(${base}/harbour.woff2?mode=${mode}) format("woff2");font-weight:200 900${mode === 'blocking' ? '' : ';font-display:swap'}}`,
				waitMs: 25
			};
		case 'serifhouse.test/harbour.woff2':
			return { type: 'font/woff2', body: TITLE_FONT, waitMs: 20 };
		case 'passalong.test/counts.js':
			return js(`${COUNTS(base, mode)}\n${library('passalong', 8000, 10)}`);
		case 'passalong.test/counts.json':
			return json([12, 7, 31, 4], 140);
	}
	const part = host === 'parlour-bell.test' && /^\/part-(\d+)\.js$/.exec(path);
	return part ? js(library(`bellPart${part[1]}`, 2600, 60), 25) : null;
}
