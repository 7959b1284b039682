// Kills and cuts everything while writers of every kind work, and counts what was lost: npm run chaos.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuild } from './lib/build.mjs';
import { ensureDependencies } from './lib/dependencies.mjs';
import { attempt, run } from './lib/process.mjs';
import { runMain } from './lib/say.mjs';
import { ensureSystemPackages } from './lib/system.mjs';
import { bin, root } from './lib/paths.mjs';

/** Of the disk that is filled: enough for the demo or for so many items, little to fill. */
const ITEMS = Number(process.env.GREVAN_SEED_ITEMS ?? 0);
const DISK = `${700 + Math.ceil(ITEMS / 25)}m`;

await runMain(async () => {
	await ensureSystemPackages({ chromium: true });
	await ensureDependencies();
	await ensureBuild();
	const folder = mkdtempSync(join(tmpdir(), 'grevan-chaos-'));
	const mounted =
		process.getuid?.() === 0 &&
		(await attempt('mount', ['-t', 'tmpfs', '-o', `size=${DISK},mode=711`, 'tmpfs', folder]))
			.code === 0;
	try {
		await run(bin('tsx'), ['scripts/chaos.ts'], {
			cwd: root,
			env: {
				...process.env,
				GREVAN_DATA_DIR: folder,
				...(mounted ? { CHAOS_DISK: 'own' } : {})
			}
		});
	} finally {
		if (mounted) await attempt('umount', ['-l', folder]);
		rmSync(folder, { recursive: true, force: true });
	}
});
