import type { Person } from '$lib/server/sign-in';

declare global {
	namespace App {
		interface Locals {
			person: Person | null;
			theme: string;
			density: string;
			/** The status of what was refused while a page was made. */
			refused?: number;
		}
		interface Platform {
			/** Who asks inside the server itself: nobody else can say so. */
			visitor?: Person;
		}
		interface Error {
			message: string;
			code?: string;
		}
	}
}

export {};
