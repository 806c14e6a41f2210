import type { Person } from '$lib/server/sign-in';

declare global {
	namespace App {
		interface Locals {
			person: Person | null;
			theme: string;
			density: string;
		}
		interface Error {
			message: string;
			code?: string;
		}
	}
}

export {};
