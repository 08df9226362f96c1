declare global {
	namespace App {
		interface Error {
			message: string;
		}
		interface Locals {
			/** Why this request could not be answered, where no endpoint knew. */
			failed?: { status: number; message: string };
		}
	}
}

export {};
