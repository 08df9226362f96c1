declare global {
	namespace App {
		interface Error {
			message: string;
		}
		interface Locals {
			/** Another process held the database while this request was answered. */
			busy?: boolean;
		}
	}
}

export {};
