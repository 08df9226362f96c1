/** Printing a frozen report: between loads, like all that is derived. */
import * as v from 'valibot';
import { saveProblem, takePage, savePdf } from '../../rooms/reports/pdf';
import { finishJob } from '../../base/queue/jobs';
import { LeaseLost, type Handler } from '../handler';

const RenderOrder = v.object({ paper: v.picklist(['A4', 'Letter']) });

const LONGEST_MS = 180_000;

export const render: Handler = {
	longestMs: LONGEST_MS,
	async run(job, { db, lab, labId, log, persist }) {
		const versionId = job.subject.id;
		const { paper } = v.parse(RenderOrder, job.order);
		const page = takePage(db, versionId);
		const outcome = page && (await printed(() => lab.print({ ...page, paper })));
		await persist(() =>
			db
				.transaction(() => {
					if (outcome?.pdf) savePdf(db, versionId, paper, outcome.pdf);
					else if (outcome) saveProblem(db, versionId, paper, outcome.problem);
					if (!finishJob(db, job, labId)) throw new LeaseLost();
				})
				.immediate()
		);
		if (outcome?.problem) log.warn({ subject: job.subject, problem: outcome.problem }, 'a report could not be printed');
	},
	giveUp({ subject, order, attempts }, { db }) {
		const { paper } = v.parse(RenderOrder, order);
		const words = `Printing took the lab down ${attempts - 1} times, and is not tried again.`;
		saveProblem(db, subject.id, paper, words);
	}
};

type Printed = { pdf: Buffer; problem: null } | { pdf: null; problem: string };

async function printed(print: () => Promise<Buffer>): Promise<Printed> {
	try {
		return { pdf: await print(), problem: null };
	} catch (error) {
		return { pdf: null, problem: (error as Error).message };
	}
}
