/** A document as PDF: by the lab's own Chromium, without a network. */
import type { Browser } from 'playwright-core';

export type Paper = 'A4' | 'Letter';

export interface PdfOrder {
	/** Whole HTML, with all that it needs inside. */
	html: string;
	paper: Paper;
	/** Set at the head of each page. */
	title: string;
}

const MARGIN = { top: '22mm', bottom: '18mm', left: '18mm', right: '18mm' };
const LINE =
	'font: 7.5pt sans-serif; color: #56655E; width: 100%; padding: 0 18mm; display: flex; justify-content: space-between;';

const escaped = (text: string) => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** Tagged, with an outline, real text and the document's own fonts; nothing of it runs or is fetched. */
export async function printPdf(browser: Browser, { html, paper, title }: PdfOrder): Promise<Buffer> {
	const context = await browser.newContext({ offline: true, javaScriptEnabled: false });
	try {
		const page = await context.newPage();
		await page.setContent(html, { waitUntil: 'load' });
		return await page.pdf({
			format: paper,
			margin: MARGIN,
			tagged: true,
			outline: true,
			printBackground: true,
			displayHeaderFooter: true,
			headerTemplate: `<div style="${LINE}"><span>${escaped(title)}</span></div>`,
			footerTemplate: `<div style="${LINE}"><span></span><span><span class="pageNumber"></span> / <span class="totalPages"></span></span></div>`
		});
	} finally {
		await context.close();
	}
}
