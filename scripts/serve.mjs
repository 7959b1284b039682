// Serves the built app. Ends with the process that started it, so that a killed start leaves nothing behind.
process.on('disconnect', () => process.exit(0));
// Emitted once the last request is answered; the pool's idle connections need not be waited for.
process.on('sveltekit:shutdown', () => process.exit(0));
await import('../build/index.js');
