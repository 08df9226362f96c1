/**
 * Hushbox: holds scripts back until the visitor moves. First level: scripts of other hosts. Second: all script files.
 * Third: inline scripts too, and it runs them so late that whoever waits for the document's own event waits for ever.
 */
import type { HushboxLevel } from '../state/switches';

const RELEASE = `<script>(function(){var gone=false,events=['pointermove','pointerdown','scroll','keydown','touchstart'];
function release(){if(gone)return;gone=true;events.forEach(function(name){removeEventListener(name,release,true)});
var held=[].slice.call(document.querySelectorAll('script[type="text/hushbox"]'));
(function next(){var one=held.shift();if(!one)return;var script=document.createElement('script');
if(one.dataset.src){script.src=one.dataset.src;script.onload=script.onerror=next;document.head.appendChild(script)}else{script.textContent=one.textContent;document.head.appendChild(script);next()}})()}
events.forEach(function(name){addEventListener(name,release,{capture:true,passive:true})})})()</script>`;

const SCRIPT = /<script([^>]*)>([\s\S]*?)<\/script>/g;

export function hush(html: string, level: HushboxLevel, ownHost: string): string {
	if (level === 'off') return html;
	const held = html.replace(SCRIPT, (whole, attributes: string, body: string) => {
		const src = /\ssrc="([^"]+)"/.exec(attributes)?.[1];
		const foreign =
			src !== undefined && /^https?:/.test(src) && !src.includes(`//${ownHost}`) && !src.includes(`//cdn.${ownHost}`);
		const takes = level === 'third-party' ? foreign : level === 'files' ? src !== undefined : true;
		if (!takes) return whole;
		return src === undefined
			? `<script type="text/hushbox">${body}</script>`
			: `<script type="text/hushbox" data-src="${src}"></script>`;
	});
	return held.replace('</body>', `${RELEASE}</body>`);
}
