// Loaded into a process that is looked after: when the one that looks after it is gone, however that ended, it ends too and leaves its port.
process.channel?.unref();
process.once('disconnect', () => process.kill(process.pid, 'SIGTERM'));
