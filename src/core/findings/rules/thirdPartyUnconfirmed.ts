/** A third party that nobody has confirmed, or of which nothing is seen. */
import { hostRule } from '../hostRule';

/** Where there is no register, as of an address without a client, nothing is said. */
export const thirdPartyUnconfirmed = hostRule('third-party-unconfirmed', (known) => {
	if (!known || known.isConfirmed) return null;
	return { why: known.isSeen ? 'unconfirmed' : 'unseen', purpose: known.purpose };
});
