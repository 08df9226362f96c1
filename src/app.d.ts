import type { Booted } from '$lib/server/boot';

declare global {
	namespace App {
		interface Error {
			message: string;
		}
		/** What this process works with, and: */
		interface Locals extends Booted {
			/** Why this request could not be answered, where no endpoint knew. */
			failed?: { status: number; message: string };
		}
	}
}

export {};
