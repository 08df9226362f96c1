/** In the page: note which controls the tab key has reached, and that the focus is drawn. */
export function walkByTab(what: 'start' | 'note' | 'end') {
	const shared = globalThis as unknown as { walked?: { seen: Set<Element>; unseen: string[] } };
	const describeElement = (element: Element) =>
		`${element.tagName.toLowerCase()} ${element.getAttribute('aria-label') ?? element.textContent?.trim().slice(0, 40)}`;
	const isShown = (element: Element) => {
		const { width, height } = element.getBoundingClientRect();
		return width > 0 && height > 0 && getComputedStyle(element).visibility !== 'hidden';
	};
	/** An outline, a frame or a shadow on it, or on what Carbon draws for a hidden input. */
	const isDrawn = (element: Element) =>
		[element, element.nextElementSibling, element.parentElement, element.closest('label')].some((place) => {
			if (!place) return false;
			return ['', '::before', '::after'].some((pseudo) => {
				const style = getComputedStyle(place, pseudo || undefined);
				const isFramed = pseudo !== '' && style.content !== 'none' && parseFloat(style.borderTopWidth) > 0;
				const isOutlined = style.outlineStyle !== 'none' && parseFloat(style.outlineWidth) > 0;
				return isFramed || isOutlined || style.boxShadow !== 'none';
			});
		});
	const controls = () =>
		[...document.querySelectorAll('main a[href], main button, main select, main textarea, main input')].filter(
			(element) =>
				isShown(element) &&
				!(element as HTMLButtonElement).disabled &&
				(element as HTMLElement).tabIndex >= 0 &&
				!element.closest('[data-testid="requests"]') &&
				(element as HTMLInputElement).type !== 'radio'
		);
	if (what === 'start') shared.walked = { seen: new Set(), unseen: [] };
	const walked = shared.walked!;
	const active = document.activeElement;
	const isEnd = what === 'note' && (active === document.body || active === null);
	if (what === 'note' && active && !isEnd) {
		walked.seen.add(active);
		if (active.closest('main') && !isDrawn(active)) walked.unseen.push(describeElement(active));
	}
	const missing =
		what === 'end'
			? controls()
					.filter((element) => !walked.seen.has(element))
					.map(describeElement)
			: [];
	return { expected: controls().length, unseen: walked.unseen, missing, isEnd };
}
