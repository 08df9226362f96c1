/** Asking the lab to look at a page, and waiting until it has. */
import type { SurveyView } from '$lib/server/rooms/loads/surveyView';

const LOOK_EVERY_MS = 1000;

interface Problem {
	error?: { message?: string; issues?: { message: string }[] };
}

async function answerOf<Body>(response: Response): Promise<Body> {
	const body = (await response.json()) as Body & Problem;
	if (!response.ok) throw new Error(body.error?.issues?.[0]?.message ?? body.error?.message ?? 'Zafra did not answer.');
	return body;
}

const pause = (ms: number, signal: AbortSignal) =>
	new Promise<void>((resolve, reject) => {
		const timer = setTimeout(resolve, ms);
		signal.addEventListener('abort', () => (clearTimeout(timer), reject(new Error('ended'))), { once: true });
	});

/** @throws Error in words */
export async function lookAtPage(url: string, conditions: string, signal: AbortSignal): Promise<SurveyView> {
	const { id } = await answerOf<{ id: number }>(
		await fetch('/api/loads', {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ url, conditions, survey: true }),
			signal
		})
	);
	for (;;) {
		const { status, loadId } = await answerOf<{ status: string; loadId: number | null }>(
			await fetch(`/api/singles/${id}`, { signal })
		);
		if (loadId !== null) return answerOf<SurveyView>(await fetch(`/api/loads/${loadId}/survey`, { signal }));
		if (status === 'done') throw new Error('The load was called off.');
		await pause(LOOK_EVERY_MS, signal);
	}
}
