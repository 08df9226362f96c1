/** Skerry Line: an island ferry company. Timetables and bookings. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { FILE_TIME, LONG_CACHE, type Host, type Workshop, type WorldResponse } from '../world';

const require = createRequire(import.meta.url);
const FONT = readFileSync(
	require.resolve('@fontsource-variable/source-serif-4/files/source-serif-4-latin-wght-normal.woff2')
);

const PAGE_TIME = { middleMs: 120, spread: 0.08 };
const PALETTE = ['#9db8c4', '#54707a', '#123f52'] as const;

const SAILINGS: readonly [route: string, leaves: string, arrives: string, ship: string, days: string][] = [
	['Harrow Quay to Inner Skerry', '06:40', '07:25', 'Brindle', 'Daily'],
	['Harrow Quay to Inner Skerry', '09:10', '09:55', 'Brindle', 'Daily'],
	['Harrow Quay to Inner Skerry', '12:30', '13:15', 'Marram', 'Daily'],
	['Harrow Quay to Inner Skerry', '16:05', '16:50', 'Brindle', 'Monday to Saturday'],
	['Harrow Quay to Outer Skerry', '07:15', '09:05', 'Thrift', 'Daily'],
	['Harrow Quay to Outer Skerry', '13:40', '15:30', 'Thrift', 'Daily'],
	['Inner Skerry to Outer Skerry', '10:20', '11:10', 'Marram', 'Tuesday, Thursday, Saturday'],
	['Inner Skerry to Harrow Quay', '08:00', '08:45', 'Brindle', 'Daily'],
	['Inner Skerry to Harrow Quay', '17:20', '18:05', 'Brindle', 'Monday to Saturday'],
	['Outer Skerry to Harrow Quay', '10:00', '11:50', 'Thrift', 'Daily'],
	['Outer Skerry to Harrow Quay', '18:15', '20:05', 'Thrift', 'Friday, Sunday'],
	['Gannet Rock round trip', '11:00', '14:30', 'Samphire', 'May to September']
];

const CSS = `@font-face{font-family:"Harbour";src:url(/fonts/harbour.woff2) format("woff2");font-weight:200 900;font-display:swap}
*{box-sizing:border-box}body{margin:0;font:17px/1.55 "Liberation Sans",Arial,sans-serif;color:#12303d;background:#f6f4ee}
header{background:#123f52;color:#fff;padding:14px 24px;display:flex;gap:28px;align-items:center;flex-wrap:wrap}
header b{font:600 24px "Harbour",Georgia,serif}header nav{display:flex;gap:18px}header a{color:#fff;text-decoration:none}
.hero{position:relative}.hero img{width:100%;height:auto;display:block;aspect-ratio:16/7;object-fit:cover}
main{max-width:1020px;margin:0 auto;padding:20px 24px 60px}h1,h2{font-family:"Harbour",Georgia,serif;font-weight:600;line-height:1.15}
h1{font-size:2.2rem;margin:.6em 0 .3em}table{border-collapse:collapse;width:100%;background:#fff}th,td{text-align:left;padding:9px 12px;border-bottom:1px solid #d8d3c4}
th{background:#e6e1d3}.cards{display:grid;grid-template-columns:repeat(auto-fit,minmax(240px,1fr));gap:18px}.card{background:#fff;border:1px solid #d8d3c4}
.card img{width:100%;height:auto;display:block;aspect-ratio:3/2;object-fit:cover}.card p{margin:0;padding:12px 14px}
.notice{background:#fff6dc;border-left:4px solid #c98a12;padding:10px 14px}button{font:inherit;background:#c4501a;color:#fff;border:0;padding:10px 18px}
.wide{overflow-x:auto}footer{background:#0c2c3a;color:#cfdde2;padding:28px 24px}`;

const SCRIPT = `(function(){
var nav=document.querySelector('header nav');
document.querySelectorAll('th').forEach(function(th,i){th.style.cursor='pointer';th.addEventListener('click',function(){
var body=th.closest('table').tBodies[0];[].slice.call(body.rows).sort(function(a,b){return a.cells[i].textContent.localeCompare(b.cells[i].textContent)}).forEach(function(r){body.appendChild(r)})})});
var now=new Date(),next=[].find.call(document.querySelectorAll('td.leaves'),function(td){var p=td.textContent.split(':');return +p[0]*60+ +p[1]>now.getHours()*60+now.getMinutes()});
if(next)next.parentNode.style.fontWeight='600';
if(nav)nav.dataset.ready='yes';
})();`;

/** A date library and a carousel that the pages load and hardly use, as grown sites do. */
const LIBRARY = Array.from(
	{ length: 420 },
	(_, i) =>
		`function sk${i}(a,b){var r=${i % 7};for(var i=0;i<a.length;i++){r=(r*31+a.charCodeAt(i)+${i})%65521}return b?r+"-${i.toString(36)}"+b:r}`
).join('\n');

function layout(title: string, main: string, chat: boolean): string {
	const chatTag = chat ? `\n<script src="http://parlour-bell.test/bell.js" async></script>` : '';
	return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<title>${title} – Skerry Line</title><link rel="icon" href="data:,"><link rel="stylesheet" href="/css/site.css">
<script src="/js/library.js" defer></script><script src="/js/site.js" defer></script>${chatTag}</head>
<body><header><b>Skerry Line</b><nav><a href="/">Home</a><a href="/timetable">Timetable</a></nav></header>
${main}
<footer>Skerry Line, Harrow Quay. Sailing to the islands since 1921.</footer></body></html>`;
}

const HOME = `<div class="hero"><img src="/img/crossing.jpg" width="1600" height="700" alt="A ferry off Inner Skerry" fetchpriority="high"></div>
<main><h1>The islands are closer than you think</h1><p>Four ships, six crossings a day, and a warm saloon in any weather. Walk on with a bicycle or bring the van: the ramp at Harrow Quay is down half an hour before every sailing.</p>
<div class="cards">
<div class="card"><img src="/img/inner.jpg" width="600" height="400" alt="Inner Skerry harbour"><p><b>Inner Skerry</b><br>Forty-five minutes, the lighthouse, and the best crab rolls on the coast.</p></div>
<div class="card"><img src="/img/outer.jpg" width="600" height="400" alt="The cliffs of Outer Skerry"><p><b>Outer Skerry</b><br>Puffins from April, walking all year, and nobody in a hurry.</p></div>
<div class="card"><img src="/img/gannet.jpg" width="600" height="400" alt="Gannet Rock"><p><b>Gannet Rock</b><br>A round trip under forty thousand wings.</p></div>
</div><p><button>Book a crossing</button></p></main>`;

const TIMETABLE = `<main><h1>Timetable</h1><p class="notice">Sailings on Sunday evening may leave fifteen minutes late because of the tide.</p>
<p>All crossings leave from the east pier. Foot passengers board until five minutes before sailing, vehicles until twenty.</p>
<div class="hero"><img src="/img/quay.jpg" width="1200" height="525" alt="Harrow Quay in the morning"></div>
<div class="wide"><table><thead><tr><th>Route</th><th>Leaves</th><th>Arrives</th><th>Ship</th><th>Days</th></tr></thead><tbody>
${SAILINGS.map(([route, leaves, arrives, ship, days]) => `<tr><td>${route}</td><td class="leaves">${leaves}</td><td>${arrives}</td><td>${ship}</td><td>${days}</td></tr>`).join('\n')}
</tbody></table></div><h2>Fares</h2><p>Adults 14.50, children 6.00, bicycles free. A car with driver is 62.00, each way.</p></main>`;

const PICTURES: Record<string, { width: number; height: number }> = {
	crossing: { width: 1600, height: 700 },
	quay: { width: 1200, height: 525 },
	inner: { width: 600, height: 400 },
	outer: { width: 600, height: 400 },
	gannet: { width: 600, height: 400 }
};

export function skerryLine(name: string, { chat, workshop }: { chat: boolean; workshop: Workshop }): Host {
	const file = (type: string, body: string | Buffer): WorldResponse => ({
		type,
		body,
		headers: LONG_CACHE,
		serverTime: FILE_TIME
	});
	return {
		name,
		title: chat ? 'Skerry Line, with the chat' : 'Skerry Line',
		async respond({ path }) {
			if (path === '/') return { type: 'text/html', body: layout('Ferries to the islands', HOME, chat), serverTime: PAGE_TIME };
			if (path === '/timetable') return { type: 'text/html', body: layout('Timetable', TIMETABLE, chat), serverTime: PAGE_TIME };
			if (path === '/css/site.css') return file('text/css', CSS);
			if (path === '/js/site.js') return file('text/javascript', SCRIPT);
			if (path === '/js/library.js') return file('text/javascript', LIBRARY);
			if (path === '/fonts/harbour.woff2') return file('font/woff2', FONT);
			const picture = /^\/img\/(\w+)\.jpg$/.exec(path)?.[1];
			const size = picture ? PICTURES[picture] : undefined;
			if (!picture || !size) return null;
			const options = { ...size, palette: PALETTE, scene: 'sea', format: 'jpeg', quality: 74 } as const;
			return file('image/jpeg', await workshop.pictures.get(`skerry-${picture}`, options));
		}
	};
}
