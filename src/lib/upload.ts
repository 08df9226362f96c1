/** Sending a file as the body of a request, and what came of it in words. */

export interface Sent<Answer> {
	answer: Answer | null;
	/** What went wrong, in words; empty when nothing did. */
	problem: string;
}

/** @param url of the API's call */
export async function sendFile<Answer>(url: string, file: File): Promise<Sent<Answer>> {
	try {
		const response = await fetch(url, { method: 'POST', body: file });
		const body = (await response.json()) as Answer & { error?: { message: string } };
		return response.ok ? { answer: body, problem: '' } : { answer: null, problem: body.error?.message ?? '' };
	} catch {
		return { answer: null, problem: 'Zafra did not answer. The file stays chosen; try again in a moment.' };
	}
}
