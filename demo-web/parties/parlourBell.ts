/** Parlour Bell: a chat that sits in the corner of other people's pages and does a good deal of work to get there. */
import { FILE_TIME, type Host } from '../world';

/** Real work: many rounds of string building and sorting, in a few tasks of their own. */
const LOADER = `(function(){
var words='hello welcome aboard how may we help you today please wait a moment'.split(' ');
function work(rounds){var made=[];for(var i=0;i<rounds;i++){var line=[];for(var j=0;j<24;j++)line.push(words[(i*7+j*3)%words.length]+((i*j)%97));line.sort();made.push(line.join('-'))}made.sort();return made.length}
window.ParlourBell={messages:work(2600)};
setTimeout(function(){window.ParlourBell.index=work(3200);
fetch('http://parlour-bell.test/greeting.json').then(function(r){return r.json()}).then(function(greeting){
window.ParlourBell.phrases=work(2600);
var bar=document.createElement('div');bar.className='parlour-bell-bar';bar.style.cssText='background:#f3d9a4;color:#3a2a08;padding:14px 24px;font:16px Arial';
bar.textContent=greeting.text;document.body.insertBefore(bar,document.body.firstChild.nextSibling);
var box=document.createElement('div');box.className='parlour-bell-box';box.style.cssText='position:fixed;right:18px;bottom:18px;width:280px;background:#fff;border:2px solid #7a3b12;padding:14px;font:15px/1.4 Arial;box-shadow:0 4px 18px rgba(0,0,0,.25)';
box.innerHTML='<b>Parlour Bell</b><p>'+greeting.question+'</p>';var face=new Image();face.src='http://parlour-bell.test/face.jpg';face.width=56;face.height=56;box.prepend(face);document.body.appendChild(box);
})},60);
})();`;

const PHRASES = Array.from({ length: 700 }, (_, i) => `"phrase${i}":"We are here to help with request number ${i * 17}"`).join(',');

export function parlourBell(workshop: import('../world').Workshop): Host {
	const headers = { 'access-control-allow-origin': '*', 'cache-control': 'public, max-age=600' };
	return {
		name: 'parlour-bell.test',
		title: 'Parlour Bell, the chat',
		async respond({ path }) {
			if (path === '/bell.js')
				return {
					type: 'text/javascript',
					body: `${LOADER}\nwindow.ParlourBell.book={${PHRASES}};`,
					headers,
					serverTime: { middleMs: 40, spread: 0.15 }
				};
			if (path === '/greeting.json')
				return {
					type: 'application/json',
					body: JSON.stringify({ text: 'Our booking desk is open until nine tonight.', question: 'Which crossing are you looking for?' }),
					headers,
					serverTime: { middleMs: 70, spread: 0.2 }
				};
			if (path !== '/face.jpg') return null;
			const options = { width: 112, height: 112, palette: ['#e2c9a1', '#b07a4a', '#7a3b12'], scene: 'object', format: 'jpeg', quality: 80 } as const;
			return { type: 'image/jpeg', body: await workshop.pictures.get('bell-face', options), headers, serverTime: FILE_TIME };
		}
	};
}
