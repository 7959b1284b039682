/** Ends this process with the one that started it, however that went; one that was started by hand has none. */
export function endWithParent() {
	const end = () => process.exit(0);
	process.on('disconnect', end);
	// It may be gone already, before this process could listen.
	if (process.connected === false) end();
}
