/** A client as its form shows it: text, so that nothing typed is lost. */
import { mustSendLines } from '$core/trial/design/mustSend';
import type { ClientInput } from '$core/clients/client';

export interface ClientDraft {
	name: string;
	note: string;
	language: string;
	currency: string;
	people: string;
	reportName: string;
	reportColour: string;
	/** JSON of both. */
	targets: string;
	margins: string;
	conditions: string[];
	mustSend: string;
	growth: string;
	hourly: string;
	/** Of the client as it was read; empty for a new one. */
	revision: string;
}

export function draftOfClient(client: ClientInput & { revision?: number }): ClientDraft {
	const { people, targets, margins, mustSend, growth, hourly, ...rest } = client;
	return {
		...rest,
		people: people.map(({ name, role, email }) => [name, role, email].filter(Boolean).join(', ')).join('\n'),
		targets: JSON.stringify(targets),
		margins: JSON.stringify(margins),
		mustSend: mustSendLines(mustSend),
		growth: growth ? String(Math.round(growth * 1000) / 10) : '',
		hourly: hourly ? String(hourly) : '',
		revision: String(client.revision ?? '')
	};
}
