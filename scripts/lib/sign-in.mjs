/**
 * Goes in as a person of the demo.
 * @param {string} address
 * @param {string} email
 * @returns {Promise<string[]>} the cookies, each as name=value
 */
export async function signInDemo(address, email) {
	const response = await fetch(`${address}/sign-in?/demo`, {
		method: 'POST',
		redirect: 'manual',
		headers: { origin: address },
		body: new URLSearchParams({ email })
	});
	await response.text();
	return response.headers.getSetCookie().map((cookie) => cookie.split(';')[0] ?? '');
}
