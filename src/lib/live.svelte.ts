/** What the server tells every open page: the lab's doing and the progress of trials. */
import type { Snapshot } from './server/desk/labNow';
import { newlyRested, type TrialNotice } from './trialNotices';

export interface ToldNotice extends TrialNotice {
	/** Of the trial; empty until it is known. */
	question: string;
}

class Live {
	snapshot = $state<Snapshot | null>(null);
	/** The server does not answer; what is shown may be old, and nothing can be sent. */
	isUnreachable = $state(false);
	/** What ended or waits since the page was opened, newest first, until it is put away. */
	notices = $state<ToldNotice[]>([]);

	/** Listen for as long as the page is open; the browser connects again by itself. */
	listen(): () => void {
		const source = new EventSource('/api/events');
		source.addEventListener('progress', (event) => {
			this.isUnreachable = false;
			this.take(JSON.parse((event as MessageEvent<string>).data) as Snapshot);
		});
		source.addEventListener('open', () => (this.isUnreachable = false));
		source.addEventListener('error', () => (this.isUnreachable = true));
		return () => source.close();
	}

	progressOf(trialId: number) {
		return this.snapshot?.trials.find((trial) => trial.id === trialId) ?? null;
	}

	/** Something that was sent got no answer. */
	noteUnreachable(): void {
		this.isUnreachable = true;
	}

	putAway(trialId: number): void {
		this.notices = this.notices.filter((notice) => notice.id !== trialId);
	}

	private async tell(notice: TrialNotice): Promise<void> {
		const question = await questionOf(notice.id);
		this.notices = [{ ...notice, question }, ...this.notices.filter(({ id }) => id !== notice.id)];
		notifyOutside({ ...notice, question });
	}

	private take(next: Snapshot): void {
		const rested = newlyRested(this.snapshot?.trials ?? null, next.trials);
		this.snapshot = next;
		for (const notice of rested) void this.tell(notice);
	}
}

/** Empty when the server does not answer: the notice leads to the trial all the same. */
async function questionOf(trialId: number): Promise<string> {
	const answer = await fetch(`/api/trials/${trialId}`).catch(() => null);
	return answer?.ok ? ((await answer.json()) as { question: string }).question : '';
}

/** A browser notification, where it is allowed and nobody looks at the page. */
function notifyOutside({ id, title, question }: ToldNotice): void {
	if (typeof Notification === 'undefined' || Notification.permission !== 'granted' || !document.hidden) return;
	const shown = new Notification(title, { body: question, tag: `trial-${id}` });
	shown.onclick = () => {
		window.focus();
		location.assign(`/trials/${id}`);
	};
}

export const live = new Live();
