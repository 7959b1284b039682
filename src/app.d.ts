import type { Actor } from '$lib/server/kernel/context';
import type { Auth, SessionSeen } from '$lib/server/web/auth';
import type { Database } from '$lib/server/db/client';
import type { Site } from '$lib/server/kernel/site';

declare global {
	namespace App {
		interface Error {
			message: string;
			path?: string;
		}
		interface Locals {
			db: Database;
			auth: Auth;
			origin: string;
			site: Site;
			actor: Actor | null;
			session: SessionSeen | null;
			theme: 'day' | 'night';
		}
	}
}

export {};
