/** Saves a draft soon after it was changed, over the revision that was read. */
import type { ReportDraft } from '$core/report/document';
import type { reportView } from '$lib/server/rooms/reports/view';

type Report = ReturnType<typeof reportView>;

const REST_MS = 700;

export class Autosave {
	/** As the server last answered: figures, choices, revision. */
	report = $state.raw<Report>() as Report;
	state = $state<'saved' | 'changed' | 'saving' | 'failed'>('saved');
	/** Why it could not be saved; empty when it could. */
	problem = $state('');
	#timer: ReturnType<typeof setTimeout> | undefined;
	#waiting: ReportDraft | null = null;

	constructor(report: Report) {
		this.report = report;
	}

	/** @param draft as it stands: a plain copy */
	change(draft: ReportDraft): void {
		this.#waiting = draft;
		if (this.state !== 'saving') this.state = 'changed';
		clearTimeout(this.#timer);
		this.#timer = setTimeout(() => void this.save(), REST_MS);
	}

	/** @returns whether all is saved */
	async save(): Promise<boolean> {
		clearTimeout(this.#timer);
		if (this.state === 'saving') return false;
		while (this.#waiting) {
			const draft = this.#waiting;
			this.#waiting = null;
			this.state = 'saving';
			if (!(await this.#send(draft))) {
				// What was typed stays in the page: the next change or a press on “Save” tries again.
				this.#waiting ??= draft;
				this.state = 'failed';
				return false;
			}
		}
		this.state = 'saved';
		return true;
	}

	async #send(draft: ReportDraft): Promise<boolean> {
		try {
			const answer = await fetch(`/api/reports/${this.report.id}`, {
				method: 'PATCH',
				headers: { 'content-type': 'application/json' },
				body: JSON.stringify({ draft, revision: this.report.revision })
			});
			const body = await answer.json();
			this.problem = answer.ok ? '' : wordsOf(body.error);
			if (answer.ok) this.report = body as Report;
			return answer.ok;
		} catch {
			this.problem = 'The server does not answer. What you typed stays here, and is saved when it answers again.';
			return false;
		}
	}
}

function wordsOf({ message, issues }: { message: string; issues: { message: string }[] }): string {
	return issues.length ? issues.map((issue) => issue.message).join(' ') : message;
}
