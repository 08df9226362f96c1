import { version } from '$app/environment';
import { figuresCsv, worksheetCsv } from '$core/report/bundle';
import { drawingVersion } from '$lib/report/whole';
import { answering, idFrom } from '$lib/server/http/api';
import { sha256 } from '$lib/server/base/db/functions';
import { NotPossible } from '$lib/server/base/refusal';
import { bundleOf } from '$lib/server/rooms/reports/bundle';
import { findPdf, PAPERS } from '$lib/server/rooms/reports/pdf';
import { wholePage } from '../../../../../versionPage';
import { existingVersion, frozenOf, type VersionLine } from '$lib/server/rooms/reports/view';

interface Download {
	media: string;
	bytes: Uint8Array | string;
}

function download({ db, signingKey }: App.Locals, version_: VersionLine, file: string): Download {
	const key = signingKey();
	const page = () => wholePage(db, version_.id, key.publicKey);
	if (file === 'report.html') return { media: 'text/html; charset=utf-8', bytes: page() };
	if (file === 'figures.csv')
		return { media: 'text/csv; charset=utf-8', bytes: figuresCsv(frozenOf(db, version_.id).trials) };
	if (file === 'bundle.zip') {
		const options = { html: page(), drawing: drawingVersion(sha256), version, key };
		return { media: 'application/zip', bytes: bundleOf(db, version_.id, options) };
	}
	if (file === 'worksheet.csv') {
		const csv = worksheetCsv(frozenOf(db, version_.id).view);
		if (csv === null) throw new NotPossible(404, 'This report has no worksheet.');
		return { media: 'text/csv; charset=utf-8', bytes: csv };
	}
	const paper = PAPERS.find((candidate) => file === `report-${candidate}.pdf`);
	const pdf = paper && findPdf(db, version_.id, paper);
	if (!pdf)
		throw new NotPossible(404, 'It has not been printed yet: ask for the PDF on the page of this version first.');
	return { media: 'application/pdf', bytes: pdf };
}

/** `report.html`, `figures.csv`, `worksheet.csv`, `bundle.zip`, `report-A4.pdf`, `report-Letter.pdf` */
export const GET = ({ locals, params }) =>
	answering(() => {
		const found = existingVersion(locals.db, idFrom(params.id, 'report'), idFrom(params.number, 'version'));
		const { media, bytes } = download(locals, found, params.file);
		const name = `report-${params.id}-version-${params.number}-${params.file}`;
		return new Response(typeof bytes === 'string' ? bytes : new Uint8Array(bytes), {
			headers: { 'content-type': media, 'content-disposition': `attachment; filename="${name}"` }
		});
	});
