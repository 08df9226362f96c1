/** Filling a form with what it accepts and pressing its button: whether it can be sent, not sending it. */
import { deepFind } from './sight';

export interface Sending {
	/** Why it was not pressed, or did not take what was typed; null when it was sent off. */
	problem: string | null;
	/** The page's own script took it. */
	isHandled: boolean;
}

const NOT_SENT = (problem: string): Sending => ({ problem, isHandled: false });
const TEXTS: Record<string, string> = {
	email: 'check@example.test',
	tel: '0123456789',
	url: 'https://example.test/',
	date: '2030-01-15',
	time: '10:00',
	month: '2030-01',
	week: '2030-W03',
	'datetime-local': '2030-01-15T10:00',
	number: '1',
	password: 'A-check-1'
};

type Field = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;

function fill(field: Field): void {
	if (field instanceof HTMLSelectElement) {
		const option = [...field.options].find(({ value, disabled }) => value !== '' && !disabled);
		if (option && field.value === '') field.value = option.value;
	} else if (field.type === 'checkbox' || field.type === 'radio') {
		if (field.required) (field as HTMLInputElement).checked = true;
	} else if (field.value === '') field.value = textFor(field);
	for (const kind of ['input', 'change']) field.dispatchEvent(new Event(kind, { bubbles: true }));
}

function textFor(field: HTMLInputElement | HTMLTextAreaElement): string {
	const text = TEXTS[field.type] ?? 'Check';
	if (field instanceof HTMLInputElement && field.type === 'number' && field.min) return field.min;
	return field.minLength > text.length ? text.padEnd(field.minLength, '.') : text;
}

const nameOf = (field: Field) => field.labels?.[0]?.innerText.trim() || field.name || field.type;

/** @throws for a selector that cannot be read */
export function tryToSend(selector: string): Sending {
	const form = deepFind(selector);
	if (!form) return NOT_SENT(`nothing matches ${selector}`);
	if (!(form instanceof HTMLFormElement)) return NOT_SENT(`${selector} is no form`);
	const fields = [...form.elements].filter(
		(element): element is Field =>
			element instanceof HTMLSelectElement ||
			element instanceof HTMLTextAreaElement ||
			(element instanceof HTMLInputElement && !['hidden', 'submit', 'button', 'reset', 'image'].includes(element.type))
	);
	const file = fields.find((field) => field.type === 'file' && (field as HTMLInputElement).required);
	if (file) return NOT_SENT(`it wants a file (${nameOf(file)})`);
	for (const field of fields) if (!field.disabled && field.type !== 'file') fill(field);
	const wrong = fields.find((field) => !field.checkValidity());
	if (wrong) return NOT_SENT(`its field “${nameOf(wrong)}” takes nothing plausible: ${wrong.validationMessage}`);
	let isHandled: boolean | null = null;
	// The last to hear of it.
	addEventListener('submit', (event) => (isHandled = event.defaultPrevented), { once: true });
	const button = form.querySelector<HTMLButtonElement>('[type=submit], button:not([type])');
	form.requestSubmit(button ?? undefined);
	if (isHandled === null) return NOT_SENT('its button sends nothing');
	return { problem: null, isHandled };
}
