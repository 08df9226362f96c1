/** What of a page could be pressed, filled or expected, and the checks that its markup suggests. */
import type { ReadyProposal } from '$core/load/journey/survey';
import { isShown, selectorOf, wordsOf } from './sight';

const MOST_ELEMENTS = 300;
/** Screens from the top that are looked at. */
const MOST_SCREENS = 3;
const CANDIDATES =
	'a[href], button, input:not([type=hidden]), select, textarea, form, video, summary, [role=button], [role=tab], [role=menuitem], [onclick], [data-action], h1, h2, h3, img[id], main, nav, [id]';
const BUY = /\b(add to (cart|basket|bag)|buy|in den warenkorb|añadir|ajouter au panier|put in)\b/i;
const COUNTS = '[class*=cart], [id*=cart], [class*=basket], [id*=basket], [class*=bag-], [aria-live]';

const first = (text: string | null | undefined, length = 60) =>
	(text ?? '').replace(/\s+/g, ' ').trim().slice(0, length);

function labelOf(element: Element): string {
	const input = element as HTMLInputElement;
	return (
		first(element.getAttribute('aria-label')) ||
		first(input.labels?.[0]?.innerText) ||
		first(wordsOf(element)) ||
		first(element.getAttribute('placeholder') ?? element.getAttribute('alt') ?? element.getAttribute('name')) ||
		element.localName
	);
}

/** The shortest selector that names this element alone; the readable path where none does. */
function uniqueSelector(element: Element): string {
	const named = ['data-test', 'data-testid', 'name', 'aria-controls', 'href']
		.map((attribute) => [attribute, element.getAttribute(attribute)] as const)
		.filter(([, value]) => value !== null && value !== '' && value.length < 80)
		.map(([attribute, value]) => `${element.localName}[${attribute}=${JSON.stringify(value)}]`);
	const path = selectorOf(element);
	const steps = path.split(' > ');
	const endings = steps.map((_, i) => steps.slice(steps.length - 1 - i).join(' > '));
	const candidates = [element.id ? `#${CSS.escape(element.id)}` : '', ...named, ...endings, wholePath(element)];
	return candidates.filter(Boolean).find((selector) => countOf(selector) === 1) ?? path;
}

function wholePath(element: Element): string {
	const parts: string[] = [];
	for (let at: Element | null = element; at; at = at.parentElement) {
		if (at.id) {
			parts.unshift(`#${CSS.escape(at.id)}`);
			break;
		}
		const siblings = [...(at.parentElement?.children ?? [at])];
		parts.unshift(siblings.length > 1 ? `${at.localName}:nth-child(${siblings.indexOf(at) + 1})` : at.localName);
	}
	return parts.join(' > ');
}

function countOf(selector: string): number {
	try {
		return document.querySelectorAll(selector).length;
	} catch {
		return 0;
	}
}

const isSeen = (element: Element): boolean => {
	const { width, height } = element.getBoundingClientRect();
	return width > 1 && height > 1 && isShown(element);
};

const seenOf = <Kind extends Element = Element>(selector: string): Kind[] =>
	[...document.querySelectorAll<Kind>(selector)].filter(isSeen);

export function survey() {
	scrollTo(0, 0);
	const height = Math.min(document.documentElement.scrollHeight, MOST_SCREENS * innerHeight);
	const elements = seenOf(CANDIDATES)
		.map((element) => ({ element, rect: element.getBoundingClientRect() }))
		.filter(({ rect }) => rect.top < height && rect.bottom > 0)
		.slice(0, MOST_ELEMENTS)
		.map(({ element, rect }) => {
			const selector = uniqueSelector(element);
			return {
				selector,
				matches: countOf(selector),
				label: labelOf(element),
				kind: element.getAttribute('role') ?? element.localName,
				box: { x: rect.x + scrollX, y: rect.y + scrollY, width: rect.width, height: rect.height }
			};
		});
	return { height, elements, proposals: proposals() };
}

function proposals(): ReadyProposal[] {
	return [...menus(), ...searches(), ...forms(), ...baskets(), ...videos(), ...languages()];
}

/** A control that opens something which cannot be seen yet. */
function menus(): ReadyProposal[] {
	return seenOf('button[aria-controls], [role=button][aria-controls], button[aria-expanded=false], summary')
		.filter((control) => !control.closest('form'))
		.slice(0, 2)
		.flatMap((control): ReadyProposal[] => {
			const click = uniqueSelector(control);
			const controlled = document.getElementById(control.getAttribute('aria-controls') ?? '');
			const label = labelOf(control);
			if (controlled) {
				if (isSeen(controlled)) return [];
				return [{ kind: 'menu', label, steps: [{ click }, { expect: { selector: `#${CSS.escape(controlled.id)}` } }] }];
			}
			const opened =
				control.localName === 'summary'
					? `${uniqueSelector(control.parentElement!)}[open]`
					: `${click}[aria-expanded=true]`;
			return [{ kind: 'menu', label, steps: [{ click }, { expect: { selector: opened } }] }];
		});
}

/** A word of the page itself: something is found by it. */
const wordOfPage = () => /[\p{L}]{4,}/u.exec(wordsOf(document.querySelector('h1, h2, title')))?.[0] ?? 'page';

function searches(): ReadyProposal[] {
	const fields = seenOf<HTMLInputElement>('input[type=search], [role=search] input, input[name=q], input[name=s]');
	return fields.slice(0, 1).flatMap((field): ReadyProposal[] => {
		// What is posted is not asked, but sent.
		if (field.form && field.form.method !== 'get') return [];
		const word = wordOfPage();
		return [
			{
				kind: 'search',
				label: labelOf(field),
				steps: [
					{ type: word, into: uniqueSelector(field) },
					{ press: 'Enter' },
					{ expect: field.form ? { url: encodeURIComponent(word) } : { text: word }, within: 5000 }
				]
			}
		];
	});
}

function forms(): ReadyProposal[] {
	return seenOf<HTMLFormElement>('form')
		.filter((form) => !form.matches('[role=search]') && !form.querySelector('input[type=search], input[name=q]'))
		.filter((form) => form.querySelector('input:not([type=hidden]), textarea, select'))
		.slice(0, 2)
		.map((form) => ({ kind: 'form', label: labelOfForm(form), steps: [{ trySend: uniqueSelector(form) }] }));
}

const labelOfForm = (form: HTMLFormElement) =>
	first(form.getAttribute('aria-label')) || first(wordsOf(form.querySelector('[type=submit], button'))) || 'form';

function baskets(): ReadyProposal[] {
	const buttons = seenOf('button, [role=button], input[type=submit]').filter(
		(button) => button.hasAttribute('data-buy') || BUY.test(labelOf(button))
	);
	return buttons.slice(0, 1).flatMap((button): ReadyProposal[] => {
		const watches = [...document.querySelectorAll(COUNTS)].slice(0, 20).map(uniqueSelector);
		return watches.length
			? [{ kind: 'basket', label: labelOf(button), steps: [{ click: uniqueSelector(button) }], watches }]
			: [];
	});
}

function videos(): ReadyProposal[] {
	return seenOf<HTMLVideoElement>('video')
		.slice(0, 1)
		.map((video) => {
			const selector = uniqueSelector(video);
			return {
				kind: 'video',
				label: labelOf(video),
				steps: [{ click: selector }, { expect: { plays: selector }, within: 5000 }]
			};
		});
}

function languages(): ReadyProposal[] {
	const now = document.documentElement.lang.slice(0, 2);
	const links = seenOf<HTMLAnchorElement>('a[hreflang], a[lang]').filter((link) => {
		const to = (link.hreflang || link.lang).slice(0, 2);
		return to !== '' && to !== now && link.origin === location.origin;
	});
	return links.slice(0, 1).map((link) => {
		const to = (link.hreflang || link.lang).slice(0, 2);
		return {
			kind: 'language',
			label: labelOf(link),
			steps: [{ click: uniqueSelector(link) }, { expect: { selector: `html[lang^="${to}"] body` }, within: 5000 }]
		};
	});
}

/** The words of elements, to see which of them change. */
export const wordsAt = (selectors: readonly string[]): string[] =>
	selectors.map((selector) => first(wordsOf(document.querySelector(selector)), 120));
