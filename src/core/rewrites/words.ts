/** What a rewrite does, in words: "the chat (parlour-bell.test) taken out". */
import { formatDuration } from '../wording/format';
import type { Rewrite } from './rewrite';
import type { Target } from './target';

const meant = ({ owner, host, address }: Target): string => owner ?? host ?? shortOf(address ?? '');

function shortOf(address: string): string {
	const parts = address.split('/').filter(Boolean);
	return parts.at(-1)?.slice(0, 60) || address.slice(0, 60);
}

export function wordRewrite(rewrite: Rewrite): string {
	switch (rewrite.do) {
		case 'block':
			return `${meant(rewrite)} taken out`;
		case 'delay':
			if (rewrite.ms !== undefined) return `${meant(rewrite)} ${formatDuration(rewrite.ms)} later`;
			return `${meant(rewrite)} only ${rewrite.until === 'input' ? 'at the first input' : 'once the page is at rest'}`;
		case 'own-host':
			return `${rewrite.host} served from the page’s own host`;
		case 'replace': {
			const { width, height, format } = rewrite;
			const size = width && height ? ` at ${width} × ${height}` : '';
			if (rewrite.with === 'picture') return `${shortOf(rewrite.address)}${size}${format ? ` as ${format}` : ''}`;
			return `${shortOf(rewrite.address)} ${rewrite.with === 'font' ? 'with the drawn signs alone' : 'minified'}`;
		}
		case 'compress':
			return rewrite.address ? `${shortOf(rewrite.address)} compressed` : 'text compressed';
		case 'header':
			return `${shortOf(rewrite.address)} ${rewrite.value === null ? 'without' : 'with'} ${rewrite.name}`;
		case 'preload':
			return `${shortOf(rewrite.address)} preloaded`;
		case 'preconnect':
			return `${rewrite.host} connected to early`;
		case 'attribute':
			return rewrite.value === null
				? `${rewrite.selector} without ${rewrite.name}`
				: `${rewrite.selector} with ${rewrite.name}=“${rewrite.value.slice(0, 40)}”`;
		case 'room':
			return `room of ${rewrite.width} × ${rewrite.height} for ${rewrite.selector}`;
		case 'remove':
			return `${rewrite.selector} removed`;
		case 'insert':
			return `markup put in ${rewrite.where} ${rewrite.selector}`;
		case 'text':
			return `text changed in ${shortOf(rewrite.address)}`;
	}
}
