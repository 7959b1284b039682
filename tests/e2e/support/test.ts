import { test as base } from '@playwright/test';
export { expect, type Page } from '@playwright/test';

/** A test that fails when a page of its own fails at something that nobody saw. */
export const test = base.extend<{ noPageErrors: void }>({
	noPageErrors: [
		async ({ context }, use) => {
			const errors: string[] = [];
			context.on('weberror', (error) => errors.push(String(error.error())));
			await use();
			base.expect(errors).toEqual([]);
		},
		{ auto: true }
	]
});
