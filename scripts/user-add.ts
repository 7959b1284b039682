import { randomBytes } from 'node:crypto';
import { z } from 'zod';
import { openDatabase } from '../src/lib/server/db/client.ts';
import { putAccount } from '../src/lib/server/access/accounts.ts';
import { makeKeyFor } from '../src/lib/server/access/keys.ts';
import { loadSite } from '../src/lib/server/kernel/site.ts';
import { createAuth } from '../src/lib/server/web/auth.ts';

/** npm run user:add -- NAME INITIALS EMAIL ROLE [--key]: makes an account and prints its password, or a key for it. */
const parsed = z
	.tuple([
		z.string().min(1),
		z.string().min(1).max(4),
		z.email(),
		z.enum(['viewer', 'technician', 'supervisor', 'admin'])
	])
	.safeParse(process.argv.slice(2).filter((word) => word !== '--key'));

if (!parsed.success) {
	console.error(
		'npm run user:add -- "NAME" INITIALS EMAIL viewer|technician|supervisor|admin [--key]'
	);
	for (const issue of parsed.error.issues)
		console.error(`  ${issue.path.join('.')}: ${issue.message}`);
	process.exitCode = 2;
} else {
	const [name, initials, email, role] = parsed.data;
	const { db, close } = openDatabase(process.env.DATABASE_URL ?? '', { max: 1 });
	try {
		const auth = createAuth(db, {
			secret: process.env.GREVAN_SECRET ?? '',
			origin: 'http://localhost'
		});
		const password = randomBytes(12).toString('base64url');
		const context = { db, now: () => new Date(), site: await loadSite(db) };
		const id = await putAccount(auth, context, { name, initials, email, role, password });
		console.log(`${email} (${role}) may sign in with: ${password}`);
		if (process.argv.includes('--key'))
			console.log(
				`Key for the calculation interface: ${await makeKeyFor(context, id, { name: 'command line', scope: 'calc', days: null })}`
			);
	} finally {
		await close();
	}
}
