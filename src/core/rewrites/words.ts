/** What a rewrite does, in words: "the chat (parlour-bell.test) taken out". */
import { formatDuration } from '../wording/format';
import type { Language } from '../wording/words';
import type { Rewrite } from './rewrite';
import type { Target } from './target';

const meant = ({ owner, host, address }: Target): string => owner ?? host ?? shortOf(address ?? '');

function shortOf(address: string): string {
	const parts = address.split('/').filter(Boolean);
	return parts.at(-1)?.slice(0, 60) || address.slice(0, 60);
}

export const wordRewrite = (rewrite: Rewrite, language: Language = 'en'): string =>
	language === 'es' ? inSpanish(rewrite) : inEnglish(rewrite);

function inEnglish(rewrite: Rewrite): string {
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

function inSpanish(rewrite: Rewrite): string {
	switch (rewrite.do) {
		case 'block':
			return `sin ${meant(rewrite)}`;
		case 'delay':
			if (rewrite.ms !== undefined) return `${meant(rewrite)} ${formatDuration(rewrite.ms)} más tarde`;
			return `${meant(rewrite)} solo ${rewrite.until === 'input' ? 'al primer uso' : 'con la página en reposo'}`;
		case 'own-host':
			return `${rewrite.host} servido desde el propio sitio`;
		case 'replace': {
			const { width, height, format } = rewrite;
			const size = width && height ? ` a ${width} × ${height}` : '';
			if (rewrite.with === 'picture') return `${shortOf(rewrite.address)}${size}${format ? ` como ${format}` : ''}`;
			return `${shortOf(rewrite.address)} ${rewrite.with === 'font' ? 'solo con los signos dibujados' : 'minificado'}`;
		}
		case 'compress':
			return rewrite.address ? `${shortOf(rewrite.address)} comprimido` : 'texto comprimido';
		case 'header':
			return `${shortOf(rewrite.address)} ${rewrite.value === null ? 'sin' : 'con'} ${rewrite.name}`;
		case 'preload':
			return `${shortOf(rewrite.address)} precargado`;
		case 'preconnect':
			return `conexión temprana con ${rewrite.host}`;
		case 'attribute':
			return rewrite.value === null
				? `${rewrite.selector} sin ${rewrite.name}`
				: `${rewrite.selector} con ${rewrite.name}=“${rewrite.value.slice(0, 40)}”`;
		case 'room':
			return `sitio de ${rewrite.width} × ${rewrite.height} para ${rewrite.selector}`;
		case 'remove':
			return `sin ${rewrite.selector}`;
		case 'insert':
			return `código añadido junto a ${rewrite.selector}`;
		case 'text':
			return `texto cambiado en ${shortOf(rewrite.address)}`;
	}
}
