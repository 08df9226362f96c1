/** Chat, video, map, social: fetched before anybody asks (practice). */
import { hostRule } from '../hostRule';

/** What people press for: purposes as the register names them. */
const ASKED_FOR = /\b(chat|video|map|social|share|sharing|player)\b/i;

export const startsUnasked = hostRule('starts-unasked', (known) =>
	known && ASKED_FOR.test(known.purpose) ? { purpose: known.purpose } : null
);
