/** A document as PDF: by the lab's own Chromium, without a network. */
import { launchBrowser } from './browser/launch';

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

/**
 * Tagged, with an outline of its headings, real text and the document's own fonts.
 * @throws LoadFailure when Chromium is not there or does not start
 */
export async function printPdf({ html, paper, title }: PdfOrder, profileLabel?: string): Promise<Buffer> {
	const running = await launchBrowser({ profileLabel });
	try {
		const context = await running.browser.newContext({ offline: true, javaScriptEnabled: false });
		const page = await context.newPage();
		await page.setContent(html, { waitUntil: 'load' });
		await page.emulateMedia({ media: 'print' });
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
		await running.close();
	}
}
