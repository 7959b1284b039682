// Serves the built app. Ends with the process that started it, so that a killed start leaves nothing behind.
process.on('disconnect', () => process.exit(0));
await import('../build/index.js');
