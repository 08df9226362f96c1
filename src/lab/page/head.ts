/** What the head of a page says of it, and how it is put together, for side checks. */
import type { HeadFacts } from '$core/load/journey/sideChecks';

const contentOf = (name: string): string =>
	document.querySelector<HTMLMetaElement>(`meta[name="${name}" i]`)?.content.trim() ?? '';

const nameOf = (link: HTMLAnchorElement): string =>
	[
		link.getAttribute('aria-label'),
		link.textContent,
		link.title,
		link.querySelector('img')?.alt,
		link.querySelector('svg title')?.textContent
	]
		.map((text) => (text ?? '').trim())
		.find(Boolean) ?? (link.hasAttribute('aria-labelledby') ? 'named' : '');

export function headFacts(): HeadFacts {
	const links = [...document.querySelectorAll<HTMLAnchorElement>('a[href]')].filter(
		(link) => link.checkVisibility?.() ?? true
	);
	const headings = [...document.querySelectorAll('h1, h2, h3, h4, h5, h6')].filter(
		(heading) => heading.checkVisibility?.() ?? true
	);
	return {
		title: document.title.trim().slice(0, 500),
		description: contentOf('description').slice(0, 1000),
		language: document.documentElement.lang.slice(0, 40),
		viewport: contentOf('viewport').slice(0, 300),
		headings: headings.slice(0, 300).map(({ localName }) => Number(localName[1])),
		robots: contentOf('robots').slice(0, 200),
		canonical: document.querySelector<HTMLLinkElement>('link[rel~=canonical]')?.href.slice(0, 1000) ?? '',
		namelessLinks: links.filter((link) => nameOf(link) === '').length,
		isSecure: location.protocol === 'https:',
		address: location.href.split('#')[0]!.slice(0, 1000)
	};
}
